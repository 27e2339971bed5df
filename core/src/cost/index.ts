export * from './money';
export * from './types';
export * from './offers';
export * from './forgotten';
export * from './cost';
export * from './said';
