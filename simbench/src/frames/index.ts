export { makeRig, ODDITIES, type MadeRig, type Oddity } from './rig';
export { runRig, type Ask, type MadeRun } from './queue';
export { readMeters, type Meters } from './meters';
export { trueShares, type TrueShares } from './truth';
