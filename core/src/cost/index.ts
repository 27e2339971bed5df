export * from './money';
export * from './types';
export * from './settings';
export * from './offers';
export * from './forgotten';
export * from './cost';
export * from './said';
