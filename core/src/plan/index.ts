export * from './types';
export { evaluate, CORE_VERSION } from './evaluate';
export { whatIf, type ChainPatch, type WhatIf } from './what-if';
export { verdictOf } from './verdict';
export { runChecks, joinFindings } from './run-checks';
export { CHECKS } from './checks';
