export * from './imports';
export * from './items';
export * from './parts';
