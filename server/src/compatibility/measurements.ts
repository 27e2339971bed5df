import { select } from '../platform/db/database';
import { storedReading } from '@ruddy/core/bring-up/contract';
import { type Chain, chainNames, partName } from '@ruddy/core/chain';
import { type MeasureId, type Measurement, ofPairs } from '@ruddy/core/compatibility';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import { cellsOf, pairsOf } from '@ruddy/core/runs';
import { chainOf, slotRows } from '../setups/chain';
import { STANDS } from '../setups/events';
import { runsOfTitles } from '../runs/runs-read';
import { SetupModel } from '../setups/models/setup';

function tagsOf(chain: Chain): Measurement['tags'] {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket);
  const { host, dock, card } = chainNames(chain);
  const standard = typeof port?.standard === 'string' ? PORT_STANDARDS[port.standard] : '';
  return { standard, host, dock, card, system: partName(chain.system) };
}

/** Outcomes of setups, one a unit: 100 where it works, 0 where it does not. Hearsay is no measurement. */
async function works(): Promise<Measurement[]> {
  const rows = await select<{
    chain: Chain;
    worked: boolean;
    on: string;
    setup_id: string | null;
    name: string | null;
  }>(
    `SELECT e.chain, u.worked, u.happened_on::text AS on, e.setup_id, t.name FROM log_units u JOIN log_entries e ON e.id = u.entry_id
     LEFT JOIN setups t ON t.id = e.setup_id WHERE NOT u.told ORDER BY u.happened_on DESC, u.entry_id LIMIT 20000`,
  );
  return rows.map((r) => ({
    value: r.worked ? 100 : 0,
    on: r.on,
    tags: tagsOf(r.chain),
    setupId: r.setup_id,
    words: r.name ?? 'from a file',
  }));
}

/** Copy rates read under load. What was read through another cable or port than the setup has now is told by neither. */
async function copies(): Promise<Measurement[]> {
  const rows = await select<{ setup_id: string; name: string; body: unknown; on: string }>(
    `SELECT e.setup_id, t.name, e.body, e.happened_at::date::text AS on FROM events e JOIN setups t ON t.id = e.setup_id
     WHERE e.kind = 'reading' AND ${STANDS} AND (e.body ->> 'gbps') IS NOT NULL ORDER BY e.happened_at DESC, e.seq DESC LIMIT 5000`,
  );
  const ids = [...new Set(rows.map((r) => r.setup_id))];
  const slots = await slotRows(ids);
  const models = await SetupModel.findAll({ where: { id: ids } });
  const chains = new Map(models.map((m) => [m.id, chainOf(slots.get(m.id) ?? [], m.details)]));
  return rows.flatMap((r): Measurement[] => {
    const read = storedReading.parse(r.body);
    const chain = chains.get(r.setup_id);
    if (
      read.gbps === null ||
      !chain ||
      read.reading.load === 'idle' ||
      read.reading.copy?.direction === 'up'
    )
      return [];
    const names = chainNames(chain);
    const same = read.through.cable === names.cable && read.through.port === names.port;
    return [
      {
        value: read.gbps,
        on: r.on,
        tags: same ? tagsOf(chain) : {},
        setupId: r.setup_id,
        words: r.name,
      },
    ];
  });
}

/** Everything the workshop has measured of these measures. */
export async function measurementsOf(
  asked: readonly MeasureId[],
): Promise<[MeasureId, Measurement[]][]> {
  const ofRuns = asked.filter((m) => m === 'lost' || m === 'toll' || m === 'panel');
  const list: [MeasureId, Measurement[]][] = [];
  if (ofRuns.length > 0) {
    const titles = await select<{ id: string }>(`SELECT id FROM profiles WHERE kind = 'title'`);
    const { pairs } = pairsOf(cellsOf(await runsOfTitles(titles.map((t) => t.id))));
    for (const m of ofRuns) list.push([m, ofPairs(pairs, m)]);
  }
  if (asked.includes('copy')) list.push(['copy', await copies()]);
  if (asked.includes('works')) list.push(['works', await works()]);
  return list;
}
