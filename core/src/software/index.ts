export * from './version';
