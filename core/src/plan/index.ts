export * from './types';
export { evaluate, CORE_VERSION } from './evaluate';
export { whatIf, type ChainPatch, type WhatIf } from './what-if';
export { verdictOf } from './verdict';
export { runChecks, joinFindings } from './run-checks';
export { CHECKS } from './checks';
export { contradicted } from './contradiction';
export type { ReadOut, ReadOuts, RouterRead } from './read-outs';
export { portRoles, type PortRole } from './port-roles';
