export * from './compare';
export * from './money';
export * from './scout';
