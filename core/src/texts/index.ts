export * from './figures';
export * from './finding';
export * from './headline';
export * from './working';
export * from './reading';
export * from './bring-up';
