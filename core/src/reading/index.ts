export * from './types';
export * from './lspci';
export * from './read';
export * from './tree';
export * from './measured';
export * from './host-draft';
