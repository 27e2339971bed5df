export * from './range';
