import { Op } from 'sequelize';
import type { Chain } from '@ruddy/core/chain';
import type { Bundle, OutcomeInFile } from '@ruddy/core/workshop/contract';
import { LogEntryModel } from '../plan/models/log-entry';
import { HttpProblem, invalid } from '../platform/http/problem';
import { count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { entryHash, entryRow } from '../plan/outcomes';

/** The chain an entry of a file names: whole, or by its place in the file's list. */
export function chainInFile(
  bundle: Pick<Bundle, 'chains'>,
  given: NonNullable<OutcomeInFile['chain']>,
  place: string,
): Chain {
  if (typeof given !== 'number') return given;
  const found = bundle.chains[given];
  if (!found)
    throw invalid(
      `${place}/chain`,
      `The file holds no chain ${given}; it has ${bundle.chains.length}`,
    );
  return found;
}

/** An entry of a setup that is not in the file, with its place there. */
export interface Foreign {
  readonly entry: OutcomeInFile;
  readonly place: string;
}

/** What is stored at once. */
const BATCH = 500;

/**
 * Store entries of setups that are neither here nor in the file. One that says the same as an entry here is left as it is; one with a
 * known id and other content is refused. In batches, as there may be many.
 */
export async function loadForeign(
  l: Load,
  list: readonly Foreign[],
  progress?: (done: number) => Promise<void>,
): Promise<void> {
  for (let i = 0; i < list.length; i += BATCH) {
    const made = list.slice(i, i + BATCH).map(({ entry, place }) => {
      if (entry.unit === undefined || entry.chain === undefined)
        throw invalid(place, 'An entry without a setup needs "unit" and "chain"');
      const { setupId, unit, chain: given, recordedAt, seq, cameFrom, ...rest } = entry;
      void setupId;
      const chain = chainInFile(l.bundle, given as NonNullable<typeof given>, place);
      const body = {
        ...rest,
        id: idFromFile(entry.id),
        corrects: entry.corrects === null ? null : idFromFile(entry.corrects),
      };
      const where = {
        setupId: null,
        unit: idFromFile(unit),
        chain,
        seq,
        cameFrom: cameFrom || l.cameFrom,
      };
      const hash = entryHash(where.unit, chain, body);
      return {
        place,
        body,
        hash,
        row: entryRow(body, where, { origin: l.origin, at: new Date(recordedAt), by: l.by }, hash),
      };
    });
    const known = await LogEntryModel.findAll({
      where: {
        [Op.or]: [{ contentHash: made.map((m) => m.hash) }, { id: made.map((m) => m.body.id) }],
      },
      attributes: ['id', 'contentHash'],
      raw: true,
    });
    const hashes = new Set(known.map((k) => k.contentHash));
    const ids = new Set(known.map((k) => k.id));
    const fresh = made.filter((m) => {
      if (hashes.has(m.hash)) return false;
      if (ids.has(m.body.id))
        throw new HttpProblem(409, 'Not saved', {
          detail: `${m.place}: another outcome has this id`,
        });
      hashes.add(m.hash);
      return true;
    });
    await checkCorrects(fresh);
    await LogEntryModel.bulkCreate(fresh.map((m) => m.row));
    for (let k = 0; k < made.length; k += 1)
      count(l, k < fresh.length ? 'stored' : 'same', 'outcomes');
    await progress?.(i + made.length);
  }
}

/** What an entry corrects must be here or come before it in the file. */
async function checkCorrects(
  fresh: readonly { place: string; body: { id: string; corrects: string | null } }[],
): Promise<void> {
  const asked = fresh.flatMap((m) => (m.body.corrects === null ? [] : [m.body.corrects]));
  const here = await LogEntryModel.findAll({
    where: { id: asked },
    attributes: ['id'],
    raw: true,
  });
  const known = new Set(here.map((h) => h.id));
  for (const m of fresh) {
    if (m.body.corrects !== null && !known.has(m.body.corrects))
      throw invalid(`${m.place}/corrects`, 'No outcome in the file or here has this id');
    known.add(m.body.id);
  }
}
