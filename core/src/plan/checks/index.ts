import { cableData } from './cable-data';
import { cableLength } from './cable-length';
import { charging } from './charging';
import { cooling } from './cooling';
import { directLong, looksLikeVideo } from './direct';
import { lead } from './lead';
import { firmwareCap, noPcie, ownPort, tooOld } from './link-kinds';
import { lockOut } from './lock-out';
import { liveParts, mounting } from './mounting';
import { nameTrap } from './name-trap';
import { noTunnel } from './no-tunnel';
import { allOff, cableWatts, readOut } from './notes';
import { bottleneck } from './bottleneck';
import { plugs } from './plug-mismatch';
import { boardCovered, powerLoad } from './power-load';
import { plugsShort, processorPlugs } from './power-plugs';
import { cardFed, supplies } from './power-supplies';
import { releases, requirements } from './requirements';
import { room } from './room';
import { routeCosts } from './route-costs';
import { screens } from './screen';
import { innerSwitch, lookAlike, shared } from './shared';
import { system } from './system';
import { unchosen } from './unchosen';

/**
 * Every check, in the order their findings are shown within one severity: what stops the link,
 * what can hurt, destroy or lock out, the software, the link's rate, power, space, air, the
 * picture, and what the card is. A new check is a file and a line here; codes, words, causes and
 * the groups of a search follow from it.
 */
export const CHECKS = [
  noTunnel,
  noPcie,
  tooOld,
  ownPort,
  plugs,
  lead,
  cableData,
  supplies,
  allOff,
  looksLikeVideo,
  processorPlugs,
  liveParts,
  routeCosts,
  lockOut,
  requirements,
  releases,
  system,
  cableLength,
  directLong,
  firmwareCap,
  bottleneck,
  plugsShort,
  powerLoad,
  boardCovered,
  cardFed,
  charging,
  room,
  mounting,
  cooling,
  screens,
  nameTrap,
  unchosen,
  shared,
  readOut,
  innerSwitch,
  lookAlike,
  cableWatts,
] as const;
