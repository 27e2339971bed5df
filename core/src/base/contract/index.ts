export * from './common';
export * from './money';
