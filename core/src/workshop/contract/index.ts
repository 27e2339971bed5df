export * from './audit';
export * from './backups';
export * from './bundle';
export * from './loans';
export * from './members';
export * from './news';
export * from './endpoints';
