export * from './measure';
export * from './claims';
export * from './register';
