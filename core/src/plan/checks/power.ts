import { SOCKET_W } from '../../power';
import { exact, fits, stated, type Range } from '../../units';
import type { Check, Draft } from '../types';

/** A draft of one supply: several may stand side by side. */
type Said = Pick<Draft, 'code' | 'params'> & Partial<Draft>;
const at = (about: string, d: Said): Draft => ({ slots: [about === 'dock' ? 'dock' : 'supplies'], about, source: 'house', ...d });

/** Certain, or possible with what it hangs on. */
function sure(certain: boolean, hangsOn: readonly string[]): Pick<Draft, 'certainty' | 'hangsOn'> {
  return certain ? { certainty: 'certain', hangsOn: [] } : { certainty: 'possible', hangsOn };
}

/** Plugs run out before watts do: every socket of the card needs a power cable of its own. */
export const plugsShort: Check<'power' | 'card'> = {
  id: 'plugs-short',
  codes: ['power/plugs-short', 'power/cpu-plug'],
  reads: ['power', 'card'],
  run({ power }) {
    return power.feeders.flatMap((f): Draft[] => {
      if (!f.plugs || f.plugs.short.hi === 0) return [];
      const { plugs } = f;
      const watts: Record<string, Range> = f.load && f.rated ? { load: f.load, rated: f.rated } : {};
      const short = at(f.at, {
        code: 'power/plugs-short',
        ...sure(plugs.short.lo > 0, ['card/plugs8Pin', `${f.at}/cables8Pin`]),
        params: { short: plugs.short, wants: plugs.wants, offers: plugs.wants - plugs.short.hi, supply: f.name, ...watts },
        source: 'pcie-base',
      });
      if (plugs.cpuCables === 0) return [short];
      return [short, at(f.at, { code: 'power/cpu-plug', params: { n: plugs.cpuCables }, source: 'common-practice' })];
    });
  },
};

/** Watts of a supply against its load, and short peaks. */
export const powerLoad: Check<'power'> = {
  id: 'power-load',
  codes: ['power/over', 'power/tight', 'power/peak'],
  reads: ['power'],
  run({ power }, rule) {
    return power.feeders.flatMap((f): Draft[] => {
      if (!f.load || !f.rated) return [];
      const params = { load: f.load, rated: f.rated, supply: f.name };
      const state = fits(f.load, f.rated);
      if (state === 'no' || state === 'may') return [at(f.at, { code: 'power/over', ...sure(state === 'no', f.open), params })];
      const comfort = rule('power.comfortPercent') / 100;
      const tight: Draft[] =
        f.load.hi > f.rated.lo * comfort
          ? [at(f.at, { code: 'power/tight', ...sure(f.load.lo > f.rated.hi * comfort, f.open), params: { ...params, comfort } })]
          : [];
      const { peak } = f;
      const over = peak && fits(peak.need, peak.have);
      if (!peak || over === 'yes') return tight;
      return [
        ...tight,
        at(f.at, {
          code: 'power/peak',
          ...sure(over === 'no', f.open),
          params: { us: peak.us, need: peak.need, have: peak.have, supply: f.name },
          source: 'pcie-base',
        }),
      ];
    });
  },
};

/** A supply missing, two of them, one second hand, a slot that gives too little, sense pins that allow less. */
export const supplies: Check<'power' | 'card' | 'box'> = {
  id: 'supplies',
  codes: ['power/no-supply', 'power/two-on-card', 'power/beside', 'power/used', 'power/slot', 'power/sense'],
  reads: ['power', 'card', 'box'],
  run({ power, card }, rule) {
    const found: Draft[] = [];
    if (power.missing)
      found.push({ code: 'power/no-supply', slots: ['dock', 'supplies'], params: {}, source: 'common-practice' });
    if (power.two)
      found.push({
        code: power.two === 'card' ? 'power/two-on-card' : 'power/beside',
        slots: ['supplies'],
        params: { n: power.feeders.length },
        source: 'common-practice',
      });
    for (const f of power.feeders)
      if (f.spec.condition === 'used')
        found.push(at(f.at, { code: 'power/used', params: { supply: f.name }, source: 'common-practice' }));
    const slot = power.slot && fits(power.slot.need, power.slot.have);
    if (power.slot && slot !== 'yes')
      found.push({
        code: 'power/slot',
        slots: ['dock', 'card'],
        ...sure(slot === 'no', ['card/slotW', 'dock/slotW']),
        params: { need: power.slot.need, have: power.slot.have },
        source: 'pcie-base',
      });
    for (const f of power.feeders) {
      const allows = typeof f.spec.cable16PinW === 'string' ? Number(f.spec.cable16PinW) : null;
      const native = f.plugs?.assigned.some((a) => a.want === '16-pin' && a.by !== null) ?? false;
      const others = card
        ? SOCKET_W['8-pin'] * (stated(card.plugs8Pin)?.hi ?? 0) + SOCKET_W['6-pin'] * (stated(card.plugs6Pin)?.hi ?? 0)
        : 0;
      const slotW = (card && stated(card.slotW)) ?? exact(rule('power.slotW'));
      if (allows === null || !native || !power.boardW) continue;
      const need = power.boardW.hi - others - slotW.lo;
      if (need > allows)
        found.push(at(f.at, { code: 'power/sense', params: { need, allows, supply: f.name }, source: 'pcie-base' }));
    }
    return found;
  },
};
