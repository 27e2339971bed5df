export * from './cost';
export * from './defaults';
export * from './docked';
export * from './pins';
export * from './slots';
