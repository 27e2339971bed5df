export * from './evaluate';
export * from './fixes';
export * from './setup-list';
export * from './endpoints';
