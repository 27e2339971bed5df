export * from './ids';
export * from './seen';
export { chainFacts, CONDITIONS, type ChainFacts, type Condition, type SaidOfChain } from './chain-facts';
export { CAUSES, PLACES, SYMPTOMS, TESTS, type CauseDef, type Fix, type Place, type Risk, type TestDef } from './net';
export * from './tables';
export * from './chain-net';
export * from './bayes';
export * from './next';
export * from './pairs';
export * from './readings';
export * from './lifts';
export * from './from-runs';
export * from './advice';
export {
  SAYS,
  FIX_RESULTS,
  CLOSINGS,
  ORIGINS,
  BY,
  standing,
  type Noted,
  type TroubleNote,
  type Says,
  type FixResult,
  type Stretch,
} from './trouble';
export * from './counts';
export * from './practice';
