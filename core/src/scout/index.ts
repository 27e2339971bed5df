export * from './types';
export { Ranking } from './rank';
export { Front, kneeOf, stepsOf, stopsAt, type Point, type Step } from './front';
export { reasonsOf, stateOf } from './reasons';
export type { LeftRow, Miss } from './left-out';
