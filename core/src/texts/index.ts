export * from './figures';
export * from './finding';
export * from './headline';
export * from './working';
