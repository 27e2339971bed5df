import type { Check } from '../types';
import { cableData } from './cable-data';
import { cableLength } from './cable-length';
import { directLong, looksLikeVideo, slotUsed } from './direct';
import { firmwareCap, noPcie, ownPort, tooOld } from './link-kinds';
import { noTunnel } from './no-tunnel';
import { allOff, cableWatts, readOut } from './notes';
import { pinch } from './pinch';
import { plugs } from './plug-mismatch';
import { innerSwitch, lookAlike, shared } from './shared';
import { unchosen } from './unchosen';

/**
 * The registry: a new check is a new file and a line here. Order is the order of findings of the
 * same severity. The method form of `run` lets checks with different declared facts share one list.
 */
export const CHECKS: readonly Check[] = [
  noTunnel,
  noPcie,
  tooOld,
  plugs,
  ownPort,
  cableData,
  cableLength,
  directLong,
  firmwareCap,
  pinch,
  unchosen,
  allOff,
  looksLikeVideo,
  slotUsed,
  shared,
  readOut,
  innerSwitch,
  lookAlike,
  cableWatts,
];
