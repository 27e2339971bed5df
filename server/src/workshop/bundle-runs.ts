import { PlannedSessionModel } from '../runs/models/planned-session';
import { capturesInUse, profilesInFile, runsInFile } from './queries/runs-in-file';
import { chainSchema } from '@ruddy/core/chain';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { fromZod } from '../platform/http/problem';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { keepCapture } from '../runs/captures';
import { chainOf } from '../setups/chain';
import { idFromFile } from '../platform/db/ids';
import { addProfile, addSession, keepMapping, listMappings } from '../runs/profiles';
import { refigure, storeRun } from '../runs/runs';
import { keepForecast } from '../runs/settled-forecasts';
import { readSetup } from '../setups/setup-store';

/** Values of runs, before the runs that name them. */
export async function loadCaptures(l: Load): Promise<void> {
  let i = 0;
  for await (const c of l.captures) {
    const data = Buffer.from(c.data, 'base64');
    const fate = await keepCapture({ sha256: c.sha256, n: c.n, data, at: l.now }).catch(
      (e: unknown) => at(`captures/${i}`, e),
    );
    count(l, fate, 'captures');
    i += 1;
  }
}

/** Titles, remembered layouts, planned sessions. */
export async function loadRunBasics(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, p] of l.bundle.profiles.entries()) {
    const { fits: _computedAnew, ...rest } = p;
    void _computedAnew;
    const { id, fresh } = await addProfile({ ...rest, id: idFromFile(p.id) }, made).catch(
      (e: unknown) => at(`profiles/${i}`, e),
    );
    l.titles.set(idFromFile(p.id), id);
    count(l, fresh ? 'stored' : 'same', 'profiles');
  }
  // The most recently used comes first in a file.
  for (const [i, m] of [...l.bundle.mappings].reverse().entries())
    await keepMapping(m, new Date(l.now.getTime() + i));
  for (const s of l.bundle.sessions) {
    const { createdAt, ...rest } = s;
    const body = { ...rest, id: idFromFile(s.id), setupIds: s.setupIds.map(idFromFile) };
    count(l, await addSession(body, { ...made, at: new Date(createdAt) }), 'sessions');
  }
}

export async function loadRun(
  l: Load,
  r: Bundle['runs'][number],
  setupId: string,
  place: string,
): Promise<void> {
  const { setupId: _file, recordedAt, happenedAt, seq, chain: given, forecast, ...rest } = r;
  void [_file, seq];
  const { rows, row } = await readSetup(setupId);
  const parsed = given === undefined ? null : chainSchema.safeParse(given);
  if (parsed && !parsed.success) at(`${place}/chain`, fromZod(parsed.error, 'body'));
  const chain = parsed?.data ?? chainOf(rows, row.details);
  const titleId = idFromFile(r.titleId);
  const body = { ...rest, id: idFromFile(r.id), titleId: l.titles.get(titleId) ?? titleId };
  const made = {
    origin: l.origin,
    at: new Date(recordedAt),
    happenedAt: new Date(happenedAt),
    by: l.by,
  };
  const fate = await storeRun(setupId, body, chain, made, `${place}/`).catch((e: unknown) =>
    at(place, e),
  );
  if (forecast && fate === 'stored') await keepForecast(body.id, forecast);
  count(l, fate, 'runs');
}

/** What was said of runs may change their figures: they are made anew. */
export async function refigureSaid(l: Load): Promise<void> {
  const ids = new Set(
    l.bundle.events.flatMap((e) =>
      e.kind === 'run-said' ? [idFromFile(String(e.body['run']))] : [],
    ),
  );
  const struck = new Set(
    l.bundle.events.flatMap((e) =>
      e.kind === 'struck' && e.corrects ? [idFromFile(e.corrects)] : [],
    ),
  );
  // A run that was taken back is not read any more.
  for (const id of ids) if (!struck.has(id)) await refigure(id);
}

type Exported = Pick<Bundle, 'profiles' | 'runs' | 'captures' | 'mappings' | 'sessions'>;
/** Everything about runs, in a fixed order. */
export async function exportRuns(): Promise<Exported> {
  const profiles = await profilesInFile();
  const runs = await runsInFile();
  const captures = await capturesInUse();
  const sessions = await PlannedSessionModel.findAll({ order: ['id'] });
  return {
    profiles,
    runs: runs.map(({ private: own, channels, forecast, ...r }) => ({
      ...r,
      ...(forecast && { forecast }),
      happenedAt: r.happenedAt.toISOString(),
      recordedAt: r.recordedAt.toISOString(),
      saw: own?.saw ?? '',
      source: own?.source ?? null,
      channels: channels ?? [],
    })),
    captures: captures.map(({ sha256, n, data }) => ({ sha256, n, data: data.toString('base64') })),
    mappings: await listMappings(),
    sessions: sessions.map((s) => ({ ...s.body, id: s.id, createdAt: s.createdAt.toISOString() })),
  };
}
