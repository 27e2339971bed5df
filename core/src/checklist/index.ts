export * from './ids';
export * from './types';
export * from './orders';
export * from './history';
export * from './list';
export * from './fold';
export * from './last-good';
export * from './opening';
