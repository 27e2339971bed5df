export * from './air';
