export * from './meta';
export * from './parts';
export * from './chain';
export * from './attr-path';
