export * from './cell';
export * from './window';
