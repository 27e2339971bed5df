export * from './symptoms';
