export * from './trouble';
export * from './endpoints';
