export * from './types';
export { findLayout } from './layout';
export * from './propose';
export * from './csv';
export { CaptureReader } from './reader';
export * from './json';
export * from './write';
export * from './align';
export { clockMs } from './clock';
