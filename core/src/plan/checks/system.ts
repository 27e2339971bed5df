import { maybe } from '../../base/text';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, kind } from '../kind';

const FINDINGS = {
  'software/security': kind<{ level: string }>(
    'blocks',
    ({ level }) => ({
      what: 'The security level of the link lets no PCIe through',
      why: `It stands at "${level}": the dock may work as a hub, but no card appears.`,
      todo: "Set it to ask once, in the firmware setup. The maker's manual counts.",
    }),
    { cause: 'no-tunnelling' },
  ),
  'software/no-outside': kind<{ system: string }>('blocks', ({ system: name }, c) => ({
    what: maybe(
      c,
      'This system takes no card from outside',
      'This system may take no card from outside',
    ),
    why: maybe(c, `${name} has no support for it, whatever is plugged in.`, c.notKnown),
    todo: maybe(
      c,
      'Use another system on this host, or another host.',
      "Look for it in the system maker's support pages.",
    ),
  })),
  'software/repackaged': kind('care', () => ({
    what: 'A repackaged driver runs with full rights',
    why: 'Whoever packed it can read and change everything on this host, and updates come late or never.',
    todo: "Judge its source, keep a copy that works, and go back to the maker's driver where it accepts the chip.",
  })),
  'software/driver-class': kind(
    'care',
    () => ({
      what: 'Consumer driver for CAD',
      why: 'CAD programs are certified for professional drivers; views may flicker or run slowly.',
      todo: 'Look whether this card takes the professional class, or use a card that does.',
    }),
    { cause: 'driver-range' },
  ),
  'software/approval': kind<{ approval: 'none' | 'once' }>(
    'care',
    ({ approval }) => ({
      what:
        approval === 'once'
          ? 'Approved once only: it will be gone after a restart'
          : 'The dock is not approved yet',
      why: 'Until it is approved the card stays unlisted.',
      todo: 'Approve it "always" in the list of the link.',
    }),
    { cause: 'not-approved' },
  ),
  'software/many-chips': kind(
    'note',
    () => ({
      what: 'Three graphics chips: programs may take the wrong one',
      why: 'The processor, a separate chip and the card all answer.',
      todo: 'Choose per program; switch off the internal ones only with a way back.',
    }),
    { cause: 'both-graphics' },
  ),
};

/** Levels at which the firmware lets no PCIe through a tunnel. */
const SHUT = ['dponly', 'usbonly', 'nopcie'];

/** The system, the driver, the approval, and what confuses programs. */
export const system = defineCheck({
  id: 'system',
  reads: ['system', 'settings', 'host', 'uses', 'port', 'card', 'box'],
  searchGroup: 'route',
  findings: FINDINGS,
  run({ system: s, settings, host, uses, port, box }) {
    const found: DraftOf<typeof FINDINGS>[] = [];
    const source = 'common-practice';
    const tunnel = port?.connector === 'usb-c' || port?.connector === 'mini-dp';
    if (s && s.outsideCards !== 'yes')
      found.push({
        code: 'software/no-outside',
        slots: ['system'],
        params: { system: s.model },
        source,
        ...certainIf(s.outsideCards === 'no', ['system/outsideCards']),
      });
    const { securityLevel: level, approval } = settings;
    if (tunnel && typeof level === 'string' && SHUT.includes(level))
      found.push({
        code: 'software/security',
        slots: ['settings'],
        params: { level },
        source: 'kernel-abi',
      });
    if (tunnel && box && level !== 'none' && (approval === 'none' || approval === 'once'))
      found.push({ code: 'software/approval', slots: ['settings'], params: { approval }, source });
    if (settings.driverKind === 'repackaged')
      found.push({ code: 'software/repackaged', slots: ['settings', 'card'], params: {}, source });
    if (uses.some((u) => u.work === 'cad') && settings.driverClass === 'consumer')
      found.push({
        code: 'software/driver-class',
        slots: ['settings', 'uses'],
        params: {},
        source,
      });
    if (host?.graphics === 'both' && settings.internalGraphics !== 'off')
      found.push({ code: 'software/many-chips', slots: ['host'], params: {}, source });
    return found;
  },
});
