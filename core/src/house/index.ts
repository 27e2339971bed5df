export * from './rules';
export type { Rule } from './types';
