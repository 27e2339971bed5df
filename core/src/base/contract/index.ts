export * from './common';
export * from './money';
export * from './contracts';
