export * from './types';
export * from './result';
export * from './worth';
export * from './outright';
export * from './collapse';
export * from './rank';
export * from './front';
export * from './reasons';
export type { LeftRow, Miss } from './left-out';
