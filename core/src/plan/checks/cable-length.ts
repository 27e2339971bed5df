import { type Range, toRange } from '../../base';
import { asRange, length, maybe } from '../../base/text';
import { cablesOf, DOMAIN, passiveLengthMm, TRANSPORT_40, transportGbps } from '../../chain';
import { defineCheck, type DraftOf, type RuleValue } from '../check';
import { certainIf, kind } from '../kind';

/** Lengths in mm. */
interface Length {
  length: Range;
  limit: number;
}

const FINDINGS = {
  'cable/too-long': kind<Length>(
    'care',
    (p, c) => ({
      what: maybe(c, 'Cable too long for its kind', 'Cable may be too long for its kind'),
      why: `Passive at ${length(p.length)}: 20 Gb/s, not 40. The limit for 40 is ${length(asRange(p.limit))}.`,
      todo: `Take a passive cable of ${length(asRange(p.limit))} or less, or an active one marked 40.`,
    }),
    { cause: 'cable-class' },
  ),
  'cable/beyond-standard': kind<Length>(
    'care',
    (p, c) => ({
      what: maybe(c, 'Cable longer than any promise', 'Cable may be longer than any promise'),
      why: `Passive at ${length(p.length)}; beyond ${length(asRange(p.limit))} the standard promises nothing, not even 20 Gb/s.`,
      todo: 'Take a shorter cable, or an active one made for this length.',
    }),
    { cause: 'cable-class' },
  ),
  'cable/joined': kind<{ pieces: number }>(
    'care',
    ({ pieces }) => ({
      what: `${asRange(pieces).lo} USB-C cables joined end to end`,
      why: 'The standard knows no such joint: each plug costs signal, and the marks on the cables no longer hold.',
      todo: 'Use one cable of the length you need.',
    }),
    { cause: 'cable-class' },
  ),
};
type Draft = DraftOf<typeof FINDINGS>;
type Cables = ReturnType<typeof cablesOf>;

const marks = (cables: Cables) => cables.map((c) => toRange(c.spec.markedGbps, DOMAIN.cableGbps));

/** Length up to which a passive cable keeps its full rate, mm; cables marked 80 keep it a little further. */
function fullRateMm(cables: Cables, rule: RuleValue): number {
  const full = rule('cable.passiveFullRateMm');
  return marks(cables).every((m) => m.lo >= 80) ? Math.max(rule('cable.passive80Mm'), full) : full;
}

/** Passive USB-C cables too long for the rate their ends could take, and cables joined end to end. */
export const cableLength = defineCheck({
  id: 'cable-length',
  reads: ['socket', 'path', 'dock'],
  searchGroup: 'link',
  findings: FINDINGS,
  run({ socket, path, dock }, rule) {
    const cables = cablesOf(path?.pieces ?? [], 'usb-c');
    if (cables.length === 0) return [];
    const passive = passiveLengthMm(cables);
    const open = cables.flatMap(({ key, spec }) => [
      ...(spec.construction === null ? [`path/${key}/construction`] : []),
      ...(spec.lengthMm === null ? [`path/${key}/lengthMm`] : []),
    ]);
    const beyond = (code: 'cable/too-long' | 'cable/beyond-standard', limit: number): Draft => ({
      code,
      slots: ['path'],
      ...certainIf(passive.lo > limit, open),
      params: { length: passive, limit },
      source: 'usb-c-cable',
    });
    const joined: Draft[] =
      cables.length > 1
        ? [
            {
              code: 'cable/joined',
              slots: ['path'],
              params: { pieces: cables.length },
              source: 'usb-c-cable',
            },
          ]
        : [];
    const half = rule('cable.passiveHalfRateMm');
    if (passive.hi > half) return [beyond('cable/beyond-standard', half), ...joined];
    const ends = [
      socket ? transportGbps(socket.standard) : TRANSPORT_40,
      dock ? transportGbps(dock.uplink) : TRANSPORT_40,
    ];
    const full = fullRateMm(cables, rule);
    const wanted = Math.min(...ends) >= TRANSPORT_40;
    const promised = marks(cables).some((m) => m.hi >= 40);
    if (!wanted || !promised || passive.hi <= full) return joined;
    return [beyond('cable/too-long', full), ...joined];
  },
});
