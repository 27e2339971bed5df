export * from './accounts';
export * from './loans/return-check';
export * from './loans/state';
export * from './news/match';
export * from './news/types';
