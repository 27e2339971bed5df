export * from './acts';
export * from './faults';
export * from './ids';
export * from './positions';
export * from './practice';
export * from './remedies';
export * from './state';
