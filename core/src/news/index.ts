export * from './types';
export * from './match';
