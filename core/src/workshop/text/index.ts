export * from './loans';
