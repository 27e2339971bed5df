export * from './common';
export * from './parts';
export * from './setups';
export * from './outcomes';
export * from './readings';
export * from './compatibility';
export * from './bundle';
export * from './evaluate';
