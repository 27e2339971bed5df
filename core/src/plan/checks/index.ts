import type { Check } from '../types';
import { lockOut, nameTrap, routeCosts } from './before';
import { cableData } from './cable-data';
import { cableLength } from './cable-length';
import { charging } from './charging';
import { directLong, looksLikeVideo } from './direct';
import { lead } from './lead';
import { firmwareCap, noPcie, ownPort, tooOld } from './link-kinds';
import { noTunnel } from './no-tunnel';
import { allOff, cableWatts, readOut } from './notes';
import { pinch } from './pinch';
import { plugs } from './plug-mismatch';
import { boardCovered, plugsShort, powerLoad, supplies } from './power';
import { cooling, mounting, room } from './room';
import { screens } from './screen';
import { innerSwitch, lookAlike, shared } from './shared';
import { releases, requirements, system } from './software';
import { unchosen } from './unchosen';

/**
 * The registry: a new check is a new file and a line here; the order of findings is that of the table of codes. The method form of `run` lets checks with different declared facts share one list.
 */
export const CHECKS: readonly Check[] = [
  noTunnel,
  noPcie,
  tooOld,
  plugs,
  ownPort,
  lead,
  cableData,
  cableLength,
  directLong,
  firmwareCap,
  pinch,
  unchosen,
  allOff,
  looksLikeVideo,
  shared,
  readOut,
  innerSwitch,
  lookAlike,
  cableWatts,
  system,
  requirements,
  releases,
  plugsShort,
  powerLoad,
  boardCovered,
  supplies,
  charging,
  room,
  mounting,
  cooling,
  screens,
  routeCosts,
  lockOut,
  nameTrap,
];
