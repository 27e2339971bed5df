import type { Check, FindingDraft } from '../types';
import { possible } from './certainty';

/** Every screen against the output it hangs on; and the picture that goes back to the host's own panel. */
export const screens: Check<'pictures' | 'settings' | 'host'> = {
  id: 'screens',
  codes: [
    'screen/no-plug',
    'screen/too-much',
    'screen/compressed',
    'screen/through-dock',
    'screen/panel',
  ],
  reads: ['pictures', 'settings', 'host'],
  run({ pictures, settings, host }) {
    const found = pictures.flatMap((p): FindingDraft[] => {
      const common = { slots: ['picture' as const], about: p.key, source: 'display' as const };
      const rates = {
        name: p.name,
        plug: p.plug,
        ...(p.needGbps !== null && { need: p.needGbps }),
        ...(p.haveGbps !== null && { have: p.haveGbps }),
        weaker: p.weaker ?? 'out',
        by: p.by,
      };
      const through: FindingDraft[] =
        p.by === 'dock'
          ? [
              {
                ...common,
                code: 'screen/through-dock',
                params: { name: p.name },
                source: 'common-practice',
              },
            ]
          : [];
      if (p.verdict === 'no-plug')
        return [{ ...common, code: 'screen/no-plug', params: rates }, ...through];
      const tooMuch = (open: Partial<FindingDraft>): FindingDraft[] => [
        { ...common, code: 'screen/too-much', params: rates, ...open },
        ...through,
      ];
      if (p.verdict === 'too-much') return tooMuch(p.doubt.length > 0 ? possible(p.doubt) : {});
      if (p.verdict === null) return p.open.length > 0 ? tooMuch(possible(p.open)) : through;
      if (p.doubt.length > 0) return tooMuch(possible(p.doubt));
      if (p.verdict === 'compressed')
        return [{ ...common, code: 'screen/compressed', params: rates }, ...through];
      return through;
    });
    if (settings.toPanel !== 'yes' || !host) return found;
    const panel: Record<string, number> =
      typeof host.panelWidthPx === 'number' && typeof host.panelHeightPx === 'number'
        ? { width: host.panelWidthPx, height: host.panelHeightPx }
        : {};
    return [
      ...found,
      {
        code: 'screen/panel',
        slots: ['host', 'picture'],
        params: panel,
        source: 'common-practice',
      },
    ];
  },
};
