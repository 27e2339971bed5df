export * from './state';
export * from './return-check';
