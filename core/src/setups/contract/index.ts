export * from './cost';
export * from './setups';
export * from './slots';
export * from './endpoints';
