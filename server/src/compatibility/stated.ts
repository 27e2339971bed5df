import { col, fn, Op } from 'sequelize';
import { exists } from '../platform/db/rows';
import { ProfileModel } from '../runs/models/profile';
import { ClaimModel } from './models/claim';
import { TitleNoteModel } from './models/title-note';
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
import { groupRuns, pairsOf } from '@ruddy/core/runs';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { contentHash } from '../platform/db/ids';
import { measurementsOf } from './measurements';
import { runsOfTitles } from '../runs/runs-read';

type Table = 'claims' | 'title_notes';
interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** Stores a statement. The same statement again changes nothing; another one under a known id is refused. */
export async function keepStated(
  table: Table,
  id: string,
  body: object,
  more: { titleId?: string; withdrawn?: boolean },
  made: Made,
): Promise<'stored' | 'same'> {
  const { titleId } = more;
  const hash = contentHash(titleId ? { ...body, titleId } : body);
  const same = { where: { [Op.or]: [{ id }, { contentHash: hash }] } };
  const known =
    table === 'claims' ? await ClaimModel.findAll(same) : await TitleNoteModel.findAll(same);
  if (known.some((k) => k.contentHash === hash)) return 'same';
  if (known.length > 0) throw new HttpProblem(409, 'Something else was stated under this id');
  const row = {
    id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    contentHash: hash,
    withdrawnAt: more.withdrawn ? made.at : null,
  };
  if (titleId === undefined) await ClaimModel.create({ ...row, body: body as Stated });
  else await TitleNoteModel.create({ ...row, titleId, body: body as Note });
  return 'stored';
}

/** Take back what was stated; it stays in exports, marked. */
export async function withdraw(s: Services, table: Table, id: string): Promise<void> {
  const withdrawnAt = fn('coalesce', col('withdrawn_at'), s.now());
  const [n] =
    table === 'claims'
      ? await ClaimModel.update({ withdrawnAt }, { where: { id } })
      : await TitleNoteModel.update({ withdrawnAt }, { where: { id } });
  if (n === 0) throw notFound(table === 'claims' ? 'claim' : 'statement');
}

type Stated = Omit<z.output<typeof claimBody>, 'id'>;

/** Claims that stand, newest first, each held against everything the workshop has measured. */
export async function listClaims(): Promise<ClaimEntry[]> {
  const rows = await ClaimModel.findAll({
    where: { withdrawnAt: null },
    order: [
      ['createdAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 500,
  });
  const asked = MEASURE_IDS.filter((m) => rows.some((r) => r.body.measure === m));
  const measured = new Map<MeasureId, Measurement[]>(await measurementsOf(asked));
  return rows.map((r) => {
    const judged = judgeClaim(r.body, measured.get(r.body.measure) ?? []);
    const against = judged.against.slice(0, 50) as ClaimEntry['judged']['against'];
    return {
      ...r.body,
      id: r.id,
      origin: r.origin,
      createdAt: r.createdAt.toISOString(),
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
  if (!(await exists(ProfileModel, titleId))) throw notFound('title');
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
  const profiles = await ProfileModel.findAll({
    where: { kind: 'title', year: null },
    order: [fn('lower', col('name'))],
  });
  const titles = profiles.map(({ id, name }) => ({ id, name }));
  const names = new Map(titles.map((t) => [t.id, t.name]));
  const notes = await TitleNoteModel.findAll({
    where: { withdrawnAt: null },
    order: [
      ['body.on', 'DESC'],
      ['id', 'DESC'],
    ],
  });
  const groups = groupRuns(await runsOfTitles(titles.map((t) => t.id)));
  const wantsGB = new Map(profiles.map((p) => [p.id, p.params?.workingGB ?? 0]));
  const found = registerFromRuns(groups, pairsOf(groups).pairs, wantsGB);
  const linkWords = (k: Note['standard']) =>
    k === 'any' ? 'any' : PORT_STANDARDS[k as PortStandard];
  const items: Register['items'] = [
    ...notes.flatMap((n) =>
      n.body.says.map((say) => ({
        id: n.id,
        titleId: n.titleId,
        title: names.get(n.titleId) ?? '',
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
  const claims = await ClaimModel.findAll({ order: ['id'] });
  const notes = await TitleNoteModel.findAll({ order: ['id'] });
  return {
    claims: claims.map(({ id, withdrawnAt, body }) => ({
      id,
      withdrawn: withdrawnAt !== null,
      ...body,
    })) as Bundle['claims'],
    titleNotes: notes.map(({ id, titleId, withdrawnAt, body }) => ({
      id,
      titleId,
      withdrawn: withdrawnAt !== null,
      ...body,
    })) as Bundle['titleNotes'],
  };
}
