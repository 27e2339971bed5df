export * from './cost';
export * from './money';
export * from './scout';
export * from './endpoints';
