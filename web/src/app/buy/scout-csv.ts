import { minorDigits } from '@ruddy/core/base';
import type { ScoutResult } from '@ruddy/core/buy';
import { SCOUT_GRADES } from '@ruddy/core/buy/text';
import { VERDICT_LABELS } from '@ruddy/core/plan/text';
import { toCsv } from '../platform/kit/csv';

/** The sets in order as CSV; a column of frames for each resolution. */
export function scoutCsv(r: ScoutResult): Promise<string> {
  const unit = 10 ** minorDigits(r.currency);
  const sizes = r.fronts.map((f) => f.resolution);
  const fields = [
    'port',
    'path',
    'dock',
    'card',
    'supply',
    'screen',
    'verdict',
    'usable_lo_gbps',
    'usable_hi_gbps',
  ];
  const frames = sizes.flatMap((s) => [`fps_${s}`, `fps_${s}_lo`, `fps_${s}_hi`]);
  return toCsv(
    [...fields, ...frames, `price_${r.currency}`, 'to_buy', 'evidence'],
    r.ranked.map((x) => [
      ...[
        x.names.port,
        x.names.path,
        x.names.dock,
        x.names.card,
        x.names.supply,
        x.names.screen,
        VERDICT_LABELS[x.state],
      ],
      ...[x.usable?.lo ?? null, x.usable?.hi ?? null],
      ...sizes.flatMap((_, k) => [
        x.fps[k] ?? null,
        x.bands[k]?.lo ?? null,
        x.bands[k]?.hi ?? null,
      ]),
      ...[
        x.minor / unit,
        x.buys.join('; '),
        x.contradicted ? 'contradicted' : SCOUT_GRADES[x.grade],
      ],
    ]),
  );
}
