export * from './common';
export * from './parts';
export * from './setups';
export * from './outcomes';
export * from './bundle';
export * from './evaluate';
