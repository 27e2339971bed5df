export * from './ids';
export * from './faults';
export * from './acts';
export * from './state';
export * from './remedies';
