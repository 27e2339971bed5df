import {
  asRange,
  capital,
  formatWhole,
  length,
  maybe,
  partNoun,
  rate,
  type Sentence,
} from '../../base/text';
import type { FindingCode } from '../codes';
import type { Finding } from '../finding';
import { notKnown } from './not-known';

type LinkCode = Extract<
  FindingCode,
  | 'link/no-pcie'
  | 'link/too-old'
  | 'link/other-family'
  | 'cable/direct-long'
  | 'dock/firmware-cap'
  | 'link/looks-like-video'
  | 'path/slot-used'
  | 'link/shared'
  | 'card/inner-switch'
  | 'host/look-alike'
>;

const HOLDS: Record<string, string> = {
  m2: 'often the drive the system starts from',
  'mini-card': 'often the radio card, and with it the network',
  drive: 'a drive that is not the one the system starts from',
};
const text = (f: Finding, key: string) => String(f.params[key] ?? '');

/** Sentences of the findings about kinds of links, what shares them, and what a system shows of them. */
export const LINK_TEXTS: Record<LinkCode, (f: Finding) => Sentence> = {
  'link/no-pcie': (f) => ({
    what: maybe(f, 'This port carries no PCIe', 'This port may carry no PCIe'),
    why: `The ${text(f, 'port')} port is ${text(f, 'standard')}; no adapter makes a card appear behind it.`,
    todo: maybe(
      f,
      'Choose another port or slot of this host.',
      "Look for the slot's lanes in the maker's manual before you buy.",
    ),
  }),
  'link/too-old': (f) => ({
    what: maybe(f, 'The two ends do not meet', 'The two ends may not meet'),
    why: maybe(
      f,
      `${capital(partNoun(f.params['at']))} does not speak Thunderbolt 3, the other end is ${text(f, 'older')}: USB passes, but no card appears.`,
      `${notKnown(f)} A USB4 end without Thunderbolt 3 facing an older Thunderbolt end passes USB, but no card appears.`,
    ),
    todo: maybe(
      f,
      'Choose a dock and a port of the same age.',
      `Find out whether ${partNoun(f.params['at'])} speaks Thunderbolt 3.`,
    ),
  }),
  'link/other-family': (f) => ({
    what: maybe(
      f,
      "The maker's own ports are of two families",
      "The maker's own ports may be of two families",
    ),
    why: f.params['b']
      ? `One end is "${text(f, 'a')}", the other "${text(f, 'b')}": alike in shape, not in wiring.`
      : 'Such ports go with parts of their own family only, and one end is not named.',
    todo: `Read the name of the port on host and dock; ${partNoun(f.params['part'])} must match.`,
  }),
  'cable/direct-long': (f) => ({
    what: maybe(f, 'Direct path too long for its rate', 'Direct path may be too long for its rate'),
    why: `${length(asRange(f.params['length']))} with ${asRange(f.params['joints']).lo} joints counted in: good to Gen${formatWhole(asRange(f.params['gen']))}, the ends could do Gen${formatWhole(asRange(f.params['wanted']))}. It shows corrected errors before it falls a generation.`,
    todo: 'Take a shorter cable or fewer joints, or set the slower generation in the firmware setup.',
  }),
  'dock/firmware-cap': (f) => ({
    what: maybe(f, 'Dock firmware holds the dock back', 'Dock firmware may hold the dock back'),
    why: `Firmware ${text(f, 'from')} changed the cap of this dock; installed: ${text(f, 'now')}. Now it passes ${rate(asRange(f.params['cap']))} Gb/s at most.`,
    todo: maybe(
      f,
      "Update the dock before first use. A broken update can kill it: charger in, no sleep, cable untouched, as the maker's manual says.",
      'Read the installed firmware first.',
    ),
  }),
  'link/looks-like-video': () => ({
    what: "The adapter's cable can look like a video cable",
    why: 'It carries PCIe and supply lines. In a video port it can destroy both ends.',
    todo: "Mark the cable, and plug it only into its own board. The maker's manual counts before this.",
  }),
  'path/slot-used': (f) => ({
    what: `This route takes ${text(f, 'slot')}`,
    why: `What sits in that slot must make room: ${HOLDS[text(f, 'holds')] ?? 'look what it is'}.`,
    todo: "Mains out, battery off where the maker allows it. Move what is in it first, and open the host only as far as the maker's manual says.",
  }),
  'link/shared': (f) => ({
    what: `${text(f, 'what')}: takes ${rate(asRange(f.params['down']))} Gb/s to the dock${asRange(f.params['up']).hi > 0 ? ` and ${rate(asRange(f.params['up']))} back` : ''}`,
    why:
      f.params['kind'] === 'video'
        ? 'Its picture crosses the same link; what its trained rate has beyond the picture stays free for the card.'
        : 'It shares the link with the card while it is in use.',
    todo:
      f.params['kind'] === 'video'
        ? 'Put the screen on the card.'
        : 'Give the hub its own cable back, or leave it idle while it matters.',
  }),
  'card/inner-switch': (f) => ({
    what: `The card's own graphics always shows ${text(f, 'shows')}`,
    why: 'It sits behind a switch on the card. That reading is not the link to the dock.',
    todo: "Read the bridge above it: the card's upstream port against the slot.",
  }),
  'host/look-alike': (f) => ({
    what: `${asRange(f.params['n']).lo === 1 ? 'Another port looks' : 'Other ports look'} like this one and ${asRange(f.params['n']).lo === 1 ? 'carries' : 'carry'} something else`,
    why: `Use ${text(f, 'port')} (marked: ${text(f, 'mark')}), not ${text(f, 'others')}.`,
    todo: 'Go by the mark and the place on the case; the shape of the plug proves nothing.',
  }),
};
