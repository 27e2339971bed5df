export * from './types';
export * from './parts';
export * from './words';
export * from './prices';
