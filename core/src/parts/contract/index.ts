export * from './imports';
export * from './items';
export * from './parts';
export * from './endpoints';
