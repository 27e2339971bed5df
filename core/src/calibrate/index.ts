export * from './solve';
export * from './search';
export * from './calibrate';
