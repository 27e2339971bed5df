export * from './bring-up';
export * from './readings';
export * from './endpoints';
