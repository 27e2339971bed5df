export { simulate, MAX_ACTS, type BenchRun } from './simulate';
export { readCopy } from './copy';
export { benchTree, treeFiles, writeTree, type Entry } from './sysfs';
export { configSpace, type MadeDevice, type MadeLink, type MadePort } from './config-space';
export type { BenchDef } from './parts';
export * from './frames';
export * from './practice';
