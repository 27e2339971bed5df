export * from './common';
export * from './money';
export * from './contracts';
export * from './health';
export * from './audit';
export * from '../text-line';
