export { makeRig, type MadeRig } from './rig';
export { runRig, type Ask, type MadeRun } from './queue';
export { readMeters, type Meters } from './meters';
