import { slotRows } from '../setups/queries/slot-rows';
import { ProfileModel } from '../runs/models/profile';
import { copyReadings, outcomesSeen } from './queries/measured';
import { storedReading } from '@ruddy/core/bring-up/contract';
import { type Chain, chainNames, partName } from '@ruddy/core/chain';
import { type MeasureId, type Measurement, ofPairs } from '@ruddy/core/compatibility';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import { groupRuns, pairsOf } from '@ruddy/core/runs';
import { chainOf } from '../setups/chain';
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
  const rows = await outcomesSeen();
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
  const rows = await copyReadings();
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
    const titles = await ProfileModel.findAll({ where: { kind: 'title' }, attributes: ['id'] });
    const { pairs } = pairsOf(groupRuns(await runsOfTitles(titles.map((t) => t.id))));
    for (const m of ofRuns) list.push([m, ofPairs(pairs, m)]);
  }
  if (asked.includes('copy')) list.push(['copy', await copies()]);
  if (asked.includes('works')) list.push(['works', await works()]);
  return list;
}
