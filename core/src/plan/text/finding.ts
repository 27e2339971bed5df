import {
  asRange,
  capital,
  length,
  maybe,
  partNoun,
  percent,
  rate,
  type Sentence,
} from '../../base/text';
import { type Connector, CONNECTORS } from '../../parts';
import type { FindingCode } from '../codes';
import type { Finding } from '../finding';
import { BODY_TEXTS } from './finding-body';
import { LINK_TEXTS } from './finding-link';
import { SOFTWARE_TEXTS } from './finding-software';

export type { Sentence } from '../../base/text';
export { partNoun } from '../../base/text';

const plugName = (p: unknown) => CONNECTORS[String(p) as Connector] ?? '';

const TEXTS: Record<FindingCode, (f: Finding) => Sentence> = {
  ...LINK_TEXTS,
  ...BODY_TEXTS,
  ...SOFTWARE_TEXTS,
  'link/no-tunnel': (f) => ({
    what: maybe(f, 'This port carries no PCIe', 'This port may carry no PCIe'),
    why: `The ${String(f.params['port'])} port has the shape, but without PCIe tunnelling no cable and no dock makes a card appear.`,
    todo: maybe(
      f,
      'Choose another port of this host, or another route.',
      'Find out whether the port tunnels PCIe before you buy.',
    ),
  }),
  'link/plug-mismatch': (f) => ({
    what: 'The plugs do not go together',
    why: `${capital(partNoun(f.params['a']))} has ${plugName(f.params['aPlug'])}, ${partNoun(f.params['b'])} has ${plugName(f.params['bPlug'])}. Either an adapter is missing between them, or they are different links that nothing joins.`,
    todo: `Choose ${partNoun(f.params['b'])} to match, or another port.`,
  }),
  'cable/no-data': (f) => ({
    what: maybe(f, 'This cable carries no tunnel', 'This cable may carry no tunnel'),
    why: maybe(
      f,
      `${String(f.params['cable'])} is marked ${rate(asRange(f.params['marked']))} Gb/s: a charging cable with USB 2.`,
      `The rate ${String(f.params['cable'])} is marked with is not known. A charging cable looks the same and carries USB 2 only.`,
    ),
    todo: maybe(
      f,
      'Take a cable marked 20 or 40 Gb/s.',
      'Read the mark on the plug: a rate in Gb/s, not watts.',
    ),
  }),
  'cable/missing': (f) => ({
    what: maybe(f, 'No cable to the dock', 'A cable to the dock may be missing'),
    why: maybe(
      f,
      'The path holds no cable and the dock has no fixed lead: nothing joins them.',
      'The path holds no cable. That is right for a dock with a fixed lead; one with a socket needs a cable.',
    ),
    todo: maybe(
      f,
      `Add a cable to the path: ${plugName(f.params['plug'])} at both ends, no longer than needed.`,
      'Look whether the cable comes off the dock, and enter it under "Fixed lead".',
    ),
  }),
  'plan/unchosen': (f) => ({
    what: `${capital(partNoun(f.params['slot']))} is not chosen yet`,
    why: 'The chain cannot be judged to its end without it.',
    todo: `Choose ${partNoun(f.params['slot'])} at the left.`,
  }),
  'cable/too-long': (f) => ({
    what: maybe(f, 'Cable too long for its kind', 'Cable may be too long for its kind'),
    why: `Passive at ${length(asRange(f.params['length']))}: 20 Gb/s, not 40. The limit for 40 is ${length(asRange(f.params['limit']))}.`,
    todo: `Take a passive cable of ${length(asRange(f.params['limit']))} or less, or an active one marked 40.`,
  }),
  'cable/beyond-standard': (f) => ({
    what: maybe(f, 'Cable longer than any promise', 'Cable may be longer than any promise'),
    why: `Passive at ${length(asRange(f.params['length']))}; beyond ${length(asRange(f.params['limit']))} the standard promises nothing, not even 20 Gb/s.`,
    todo: 'Take a shorter cable, or an active one made for this length.',
  }),
  'cable/joined': (f) => ({
    what: `${asRange(f.params['pieces']).lo} USB-C cables joined end to end`,
    why: 'The standard knows no such joint: each plug costs signal, and the marks on the cables no longer hold.',
    todo: 'Use one cable of the length you need.',
  }),
  'link/pinch': (f) => ({
    what: `${'part' in f.params ? capital(partNoun(f.params['part'])) : 'One part'} ${maybe(f, 'holds', 'may hold')} the chain to ${rate(asRange(f.params['usable']))} Gb/s`,
    why: `That is ${percent(asRange(f.params['share']))} % of the ${rate(asRange(f.params['rest']))} Gb/s the rest can carry.`,
    todo: `Change ${partNoun(f.params['part'])} if the card needs the rate; keep it if it does not.`,
  }),
  'log/contradiction': (f) => ({
    what: `Predicted to ${String(f.params['predicted'])}, seen to ${f.params['predicted'] === 'work' ? 'fail' : 'work'} ${asRange(f.params['n']).lo === 1 ? 'once' : `${asRange(f.params['seen']).lo} of ${asRange(f.params['n']).lo} times`}`,
    why:
      asRange(f.params['n']).lo === 1
        ? 'One entry only. It counts, but it proves little.'
        : 'Trust the log; the reason is not known.',
    todo: 'Open Record and compare the versions of the outcomes.',
  }),
  'link/all-off': () => ({
    what: 'Live plugging can destroy host and card on this link',
    why: 'Direct PCIe has no hot-plug. Everything off, mains out, then the cable.',
    todo: "Follow the maker's manual of dock and host; its word counts before this one.",
  }),
  'link/read-out': (f) => ({
    what: `Under load this chain should show ×${asRange(f.params['lanes']).lo} Gen${asRange(f.params['gen']).lo}`,
    why: `The card could do ×${asRange(f.params['cardLanes']).lo}; a narrower read-out is normal here.`,
    todo: 'Read it under load: an idle link rests at a lower rate.',
  }),
  'cable/watts': (f) => ({
    what: `"${asRange(f.params['watts']).lo} W" on a cable says what it charges with, not how fast it is`,
    why:
      typeof f.params['marked'] === 'number'
        ? `This one is marked ${f.params['marked']} Gb/s.`
        : 'The rate this one is marked with is not known.',
    todo: 'Go by the mark in Gb/s.',
  }),
};

/** A finding in words: what it is, why, and what to do. Called by views only. */
export function sentence(f: Finding): Sentence {
  return TEXTS[f.code](f);
}
