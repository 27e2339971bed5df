export * from './bench';
export * from './practice';
export * from './stream';
export * from './endpoints';
