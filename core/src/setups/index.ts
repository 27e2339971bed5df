export * from './cost';
export * from './defaults';
export * from './docked';
export * from './fields';
export * from './pins';
export * from './slots';
