export * from './docked';
