export * from './trouble';
