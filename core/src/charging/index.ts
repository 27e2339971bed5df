export * from './contract';
