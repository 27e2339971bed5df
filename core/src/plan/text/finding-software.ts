import { capital, ended, maybe, type Sentence } from '../../base/text';
import { SOFTWARE_NAMES, type SoftwareRole } from '../../parts';
import type { FindingCode } from '../codes';
import type { Finding } from '../finding';
import { notKnown } from './not-known';

type SoftwareCode = Extract<
  FindingCode,
  `software/${string}` | `route/${string}` | `preflight/${string}`
>;

const text = (f: Finding, key: string) => String(f.params[key] ?? '');
const isRole = (v: string): v is SoftwareRole => v in SOFTWARE_NAMES;
const soft = (v: string) => (isRole(v) ? SOFTWARE_NAMES[v].toLowerCase() : v);

/** "1.8 or newer", "1.8 to 2.1", "38 or older". */
function wanted(f: Finding): string {
  const from = text(f, 'atLeast');
  const to = text(f, 'atMost');
  if (from && to) return from === to ? from : `${from} to ${to}`;
  return from ? `${from} or newer` : `${to} or older`;
}

function asked(f: Finding): string {
  const needs = text(f, 'needs');
  if (isRole(needs))
    return `${text(f, 'who')} asks for ${soft(needs)} ${wanted(f)}; installed: ${text(f, 'have') || 'not known'}.`;
  const since = text(f, 'since') ? ` since ${text(f, 'since')}` : '';
  if (needs === 'repackaged') return `${text(f, 'who')} needs a repackaged driver${since}.`;
  return needs === 'refused'
    ? `${text(f, 'who')} is not supported here${since}.`
    : `${text(f, 'who')}:`;
}

function origin(f: Finding): string {
  return `From: ${text(f, 'source')}${text(f, 'statedOn') ? `, ${text(f, 'statedOn')}` : ''}.`;
}

function around(f: Finding): string {
  const how = text(f, 'workaround');
  if (!how) return '';
  const from = text(f, 'workaroundFrom');
  const to = text(f, 'workaroundUntil');
  const span =
    from || to
      ? ` (worked ${from ? `from ${from}` : ''}${from && to ? ' ' : ''}${to ? `until ${to}` : ''})`
      : '';
  const ended =
    f.params['workaroundState'] === 'ended' ? ' It no longer works with what is installed.' : '';
  return ` Workaround: ${how}${span}.${ended}`;
}

/** The title of a requirement; where that is a number or a mark and no sentence, whose it is too. */
function titled(f: Finding): string {
  const title = text(f, 'title').trim();
  if (/\s/.test(title)) return title;
  return title === ''
    ? `A requirement of ${text(f, 'who')}`
    : `Requirement "${title}" of ${text(f, 'who')}`;
}

function requirement(f: Finding): Sentence {
  return {
    what: titled(f),
    why: `${asked(f)} Seen then: ${ended(text(f, 'effect'))}`,
    todo: `${origin(f)}${around(f)}`,
  };
}

/** A requirement that a version may fulfil says first which one to install. */
function mendable(f: Finding): Sentence {
  const r = requirement(f);
  return { ...r, todo: `${isRole(text(f, 'needs')) ? `${update(f)} ` : ''}${r.todo}` };
}

function update(f: Finding): string {
  const to = text(f, 'to');
  const where = text(f, 'whereFrom');
  if (to) return `Install ${to}${where ? ` from ${where}` : ''}.`;
  return 'Read what is installed and take what is asked for.';
}

/** Sentences about systems, drivers, firmware, routes and what comes before the first step. */
export const SOFTWARE_TEXTS: Record<SoftwareCode, (f: Finding) => Sentence> = {
  'software/refused': (f) => ({
    ...mendable(f),
    what: maybe(f, titled(f), `${titled(f)}, perhaps`),
  }),
  'software/unmet': mendable,
  'software/heed': requirement,
  'software/firmware-first': (f) => ({
    what: text(f, 'have')
      ? `Update ${soft(text(f, 'needs'))} before plugging: ${text(f, 'have')} to ${text(f, 'to') || wanted(f)}`
      : `Have ${soft(text(f, 'needs'))} ${text(f, 'to') || wanted(f)} before plugging; what is installed is not known`,
    why: `${asked(f)} Seen with others: ${ended(text(f, 'effect'))}`,
    todo: `A broken update can kill it: charger in, no sleep, cable untouched until it says it is done. ${update(f)} ${origin(f)}${around(f)}`,
  }),
  'software/withdrawn': (f) => ({
    what: `${capital(soft(text(f, 'what')))} ${text(f, 'have')} was withdrawn`,
    why: `Its maker took it back on ${text(f, 'on')}.`,
    todo: text(f, 'to') ? `Install ${text(f, 'to')}.` : 'Go back to the release before it.',
  }),
  'software/newer': (f) => ({
    what: `${capital(soft(text(f, 'what')))} ${text(f, 'to')} is out, ${text(f, 'have')} is installed`,
    why: text(f, 'fixes') ? `It fixes: ${text(f, 'fixes')}.` : 'What it fixes is not known.',
    todo: `Note what works now before you change it.${text(f, 'whereFrom') ? ` From ${text(f, 'whereFrom')}.` : ''}`,
  }),
  'software/no-outside': (f) => ({
    what: maybe(
      f,
      'This system takes no card from outside',
      'This system may take no card from outside',
    ),
    why: maybe(
      f,
      `${text(f, 'system')} has no support for it, whatever is plugged in.`,
      notKnown(f),
    ),
    todo: maybe(
      f,
      'Use another system on this host, or another host.',
      "Look for it in the system maker's support pages.",
    ),
  }),
  'software/security': (f) => ({
    what: 'The security level of the link lets no PCIe through',
    why: `It stands at "${text(f, 'level')}": the dock may work as a hub, but no card appears.`,
    todo: "Set it to ask once, in the firmware setup. The maker's manual counts.",
  }),
  'software/approval': (f) => ({
    what:
      f.params['approval'] === 'once'
        ? 'Approved once only: it will be gone after a restart'
        : 'The dock is not approved yet',
    why: 'Until it is approved the card stays unlisted.',
    todo: 'Approve it "always" in the list of the link.',
  }),
  'software/repackaged': () => ({
    what: 'A repackaged driver runs with full rights',
    why: 'Whoever packed it can read and change everything on this host, and updates come late or never.',
    todo: "Judge its source, keep a copy that works, and go back to the maker's driver where it accepts the chip.",
  }),
  'software/driver-class': () => ({
    what: 'Consumer driver for CAD',
    why: 'CAD programs are certified for professional drivers; views may flicker or run slowly.',
    todo: 'Look whether this card takes the professional class, or use a card that does.',
  }),
  'software/many-chips': () => ({
    what: 'Three graphics chips: programs may take the wrong one',
    why: 'The processor, a separate chip and the card all answer.',
    todo: 'Choose per program; switch off the internal ones only with a way back.',
  }),
  'route/cutting': (f) => ({
    what: maybe(
      f,
      'Cutting cannot be undone, and a battery may lie behind the shell',
      'The shell may have to be cut: that cannot be undone',
    ),
    why: maybe(f, `${capital(text(f, 'slot'))} is reached only by cutting.`, notKnown(f)),
    todo: "Take another route if there is one. The maker's manual and a licensed repairer count before this.",
  }),
  'route/opening': (f) => ({
    what: `Shock and shorts threaten when the host is opened to reach ${text(f, 'slot')}`,
    why: 'A charged battery sits under most lids, a fan cable may hang on the cover, thermal compound may conduct.',
    todo: "Power off, charger out, battery off where the maker allows; mind static. Only as far as the maker's manual goes.",
  }),
  'route/boot': (f) => ({
    what: maybe(
      f,
      `The drive in ${text(f, 'slot')} holds the system`,
      `The drive in ${text(f, 'slot')} may hold the system`,
    ),
    why: 'This route takes its slot; the host then starts from nothing.',
    todo: text(f, 'free')
      ? `Move the drive to ${text(f, 'free')}, or start from another drive first; check it before the adapter goes in.`
      : 'No other slot is known to be free: start from a USB drive first, and check it before the adapter goes in.',
  }),
  'route/network': (f) => ({
    what: maybe(
      f,
      `The radio card leaves ${text(f, 'slot')}`,
      `The radio card may have to leave ${text(f, 'slot')}`,
    ),
    why:
      f.params['lan'] === 'yes'
        ? 'Wireless network and Bluetooth are lost; the LAN socket is left.'
        : f.params['lan'] === 'no'
          ? 'Wireless network and Bluetooth are lost, and the host has no LAN socket.'
          : 'Wireless network and Bluetooth are lost; whether the host has a LAN socket is not known.',
    todo:
      f.params['lan'] === 'yes'
        ? 'Lay a LAN cable first.'
        : 'Have a USB network adapter ready, with its driver installed.',
  }),
  'preflight/recovery-key': (f) => ({
    what: 'Encrypted disk may lock you out and ask for its recovery key',
    why: `Encryption sees changed hardware. The key is ${f.params['known'] === 'no' ? 'not at hand' : 'not known to be at hand'}.`,
    todo: 'Have the key on paper or on another machine before you begin. Switching encryption off is not advised.',
  }),
  'preflight/way-back': () => ({
    what: 'Switched-off internal graphics may leave no picture and no way back',
    why: 'If the card does not come up, the host shows nothing.',
    todo: 'Arrange a remote login or note the firmware reset of the maker first, or leave internal graphics on.',
  }),
};
