export * from './cost';
export * from './setups';
