import { execute, select } from '../platform/db/database';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import {
  judgeClaim,
  MEASURE_IDS,
  type MeasureId,
  type Measurement,
  registerFromRuns,
} from '@ruddy/core/compatibility';
import type {
  claimBody,
  ClaimEntry,
  Register,
  titleNoteBody,
} from '@ruddy/core/compatibility/contract';
import { PORT_STANDARDS, type PortStandard } from '@ruddy/core/parts';
import { cellsOf, pairsOf } from '@ruddy/core/runs';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { titleModels } from '../runs/fits';
import { contentHash } from '../platform/db/ids';
import { measurementsOf } from './measurements';
import { runsOfTitles } from '../runs/runs-read';

type Table = 'claims' | 'title_notes';
interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** Keep what somebody stated. The same again changes nothing; another statement under a known id is refused. */
export async function keepStated(
  table: Table,
  id: string,
  body: object,
  more: { titleId?: string; withdrawn?: boolean },
  made: Made,
): Promise<'stored' | 'same'> {
  const hash = contentHash(more.titleId ? { ...body, titleId: more.titleId } : body);
  const titled = table === 'title_notes';
  const known = await select<{ id: string; hash: string }>(
    `SELECT id, content_hash AS hash FROM ${table} WHERE id = $1 OR content_hash = $2`,
    [id, hash],
  );
  if (known.some((k) => k.hash === hash)) return 'same';
  if (known.length > 0) throw new HttpProblem(409, 'Something else was stated under this id');
  await execute(
    `INSERT INTO ${table} (id, origin, created_at, created_by, body, content_hash, withdrawn_at${titled ? ', title_id' : ''})
     VALUES ($1, $2, $3, $4, $5::jsonb, $6, $7${titled ? ', $8' : ''})`,
    [
      ...[
        id,
        made.origin,
        made.at,
        made.by,
        JSON.stringify(body),
        hash,
        more.withdrawn ? made.at : null,
      ],
      ...(titled ? [more.titleId] : []),
    ],
  );
  return 'stored';
}

/** Take back what was stated; it stays in exports, marked. */
export async function withdraw(s: Services, table: Table, id: string): Promise<void> {
  const rows = await select(
    `UPDATE ${table} SET withdrawn_at = coalesce(withdrawn_at, $2) WHERE id = $1 RETURNING id`,
    [id, s.now()],
  );
  if (rows.length === 0) throw notFound(table === 'claims' ? 'claim' : 'statement');
}

type Stated = Omit<z.output<typeof claimBody>, 'id'>;

/** Claims that stand, newest first, each held against everything the workshop has measured. */
export async function listClaims(): Promise<ClaimEntry[]> {
  const rows = await select<{ id: string; body: Stated; origin: Origin; created_at: Date }>(
    'SELECT id, body, origin, created_at FROM claims WHERE withdrawn_at IS NULL ORDER BY created_at DESC, id DESC LIMIT 500',
  );
  const asked = MEASURE_IDS.filter((m) => rows.some((r) => r.body.measure === m));
  const measured = new Map<MeasureId, Measurement[]>(await measurementsOf(asked));
  return rows.map((r) => {
    const judged = judgeClaim(r.body, measured.get(r.body.measure) ?? []);
    const against = judged.against.slice(0, 50) as ClaimEntry['judged']['against'];
    return {
      ...r.body,
      id: r.id,
      origin: r.origin,
      createdAt: r.created_at.toISOString(),
      judged: { ...judged, never: [...judged.never], against },
    };
  });
}

export async function addClaim(
  s: Services,
  { id, ...body }: z.output<typeof claimBody>,
  actor: Actor,
): Promise<void> {
  await keepStated('claims', id, body, {}, { origin: 'own', at: s.now(), by: actor.id });
}

export async function addTitleNote(
  s: Services,
  { id, titleId, ...body }: z.output<typeof titleNoteBody>,
  actor: Actor,
): Promise<void> {
  const [title] = await select('SELECT 1 FROM profiles WHERE id = $1', [titleId]);
  if (!title) throw notFound('title');
  await keepStated(
    'title_notes',
    id,
    body,
    { titleId },
    { origin: 'own', at: s.now(), by: actor.id },
  );
}

type Note = Omit<z.output<typeof titleNoteBody>, 'id' | 'titleId'>;

/** The register of titles: what was stated of them, and what runs show, by class of chains. */
export async function titleRegister(): Promise<Register> {
  const titles = await select<{ id: string; name: string }>(
    `SELECT id, name FROM profiles WHERE kind = 'title' AND year IS NULL ORDER BY lower(name)`,
  );
  const names = new Map(titles.map((t) => [t.id, t.name]));
  const notes = await select<{ id: string; title_id: string; body: Note }>(
    "SELECT id, title_id, body FROM title_notes WHERE withdrawn_at IS NULL ORDER BY body ->> 'on' DESC, id DESC",
  );
  const cells = cellsOf(await runsOfTitles(titles.map((t) => t.id)));
  const models = await titleModels(titles.map((t) => t.id));
  const wants = new Map(
    models.map((m) => [
      m.id,
      {
        workingGB: m.params?.workingGB ?? 0,
        trips: m.fit?.terms.find((t) => t.kind === 'trips' && t.state === 'fitted')?.value ?? 0,
      },
    ]),
  );
  const found = registerFromRuns(cells, pairsOf(cells).pairs, wants);
  const linkWords = (k: Note['standard']) =>
    k === 'any' ? 'any' : PORT_STANDARDS[k as PortStandard];
  const items: Register['items'] = [
    ...notes.flatMap((n) =>
      n.body.says.map((say) => ({
        id: n.id,
        titleId: n.title_id,
        title: names.get(n.title_id) ?? '',
        link: linkWords(n.body.standard),
        say,
        on: n.body.on,
        version: n.body.version,
        provenance: n.body.provenance,
        words: n.body.words,
        n: 1,
      })),
    ),
    ...found.map((f) => ({
      ...f,
      id: null,
      title: names.get(f.titleId) ?? '',
      version: '',
      provenance: 'runs' as const,
    })),
  ].sort(
    (a, b) =>
      a.title.localeCompare(b.title) || a.link.localeCompare(b.link) || b.on.localeCompare(a.on),
  );
  const told = new Set(items.map((i) => i.titleId));
  return { items, titles, silent: titles.filter((t) => !told.has(t.id)) };
}

/** What was stated, as a bundle holds it. */
export async function exportStated(): Promise<Pick<Bundle, 'claims' | 'titleNotes'>> {
  const claims = await select<{ id: string; body: Stated; withdrawn: boolean }>(
    'SELECT id, body, withdrawn_at IS NOT NULL AS withdrawn FROM claims ORDER BY id',
  );
  const notes = await select<{ id: string; titleId: string; body: Note; withdrawn: boolean }>(
    'SELECT id, title_id AS "titleId", body, withdrawn_at IS NOT NULL AS withdrawn FROM title_notes ORDER BY id',
  );
  const flat = <T extends { body: object }>({ body, ...rest }: T) => ({ ...rest, ...body });
  return {
    claims: claims.map(flat) as Bundle['claims'],
    titleNotes: notes.map(flat) as Bundle['titleNotes'],
  };
}
