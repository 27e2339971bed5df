export * from './bench';
export * from './practice';
