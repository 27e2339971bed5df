export * from './loans';
export * from './audit';
