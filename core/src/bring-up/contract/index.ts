export * from './bring-up';
export * from './readings';
