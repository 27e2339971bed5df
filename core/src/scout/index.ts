export * from './types';
export * from './result';
export * from './worth';
export * from './outright';
export { collapsed } from './collapse';
export { Ranking } from './rank';
export { Front, hullOf, kneeOf, stepsOf, stopsAt, type Point, type Step, type Stops } from './front';
export { reasonsOf, stateOf } from './reasons';
export type { LeftRow, Miss } from './left-out';
