/** The words of every subject, for the rules that all of them keep. */
export * from '../src/base/text';
export * from '../src/bench/text';
export * from '../src/bring-up/text';
export * from '../src/buy/text';
export * from '../src/chain/text';
export * from '../src/compatibility/text';
export * from '../src/parts/text';
export * from '../src/plan/text';
export * from '../src/runs/text';
export * from '../src/setups/text';
export * from '../src/troubleshoot/text';
export * from '../src/workshop/text';
