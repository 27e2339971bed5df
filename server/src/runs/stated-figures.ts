import { isDeepStrictEqual } from 'node:util';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import { NO_RUN_CONTEXT, rigOf, type RigFacts, type StatedSettings } from '@ruddy/core/runs';
import type {
  statedFigureBody,
  StatedFigureEntry,
  StatedFigureKept,
  statedRigBody,
} from '@ruddy/core/runs/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { createOnce, exists } from '../platform/db/rows';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { houseRules } from '../setups/rules';
import { ProfileModel } from './models/profile';
import { StatedFigureModel } from './models/stated-figure';
import { statedFigureRows } from './queries/stated-figures';

/** Stated figures, newest first. */
export async function listStated(
  f: Parameters<typeof statedFigureRows>[0],
): Promise<StatedFigureEntry[]> {
  const rows = await statedFigureRows(f);
  return rows.map(({ title_id: titleId, at: stated, body, ...r }) => ({
    id: r.id,
    titleId,
    title: r.title,
    at: stated.toISOString(),
    origin: r.origin,
    ...body,
  }));
}

/** Every stated figure of these titles. */
export async function statedOfTitles(titleIds: readonly string[]): Promise<StatedFigureEntry[]> {
  return titleIds.length === 0 ? [] : listStated({ titleIds });
}

const IN_SLOT = { ...NO_RUN_CONTEXT, norm: true };

/** The rig that is meant: the chain of a setup as it stands, with another card, or that card in a slot of another machine. */
async function resolveRig(r: z.output<typeof statedRigBody>, place: string): Promise<RigFacts> {
  const patch = r.cardId ? { card: { id: r.cardId } } : undefined;
  const chain = await givenChain({ setupId: r.setupId, ...(patch && { patch }) });
  if (!chain.card) throw invalid(`${place}/cardId`, 'Card: the setup has none; name one');
  return rigOf(chain, r.slot ? IN_SLOT : null, await houseRules());
}

const sideOf = (rig: RigFacts, p: Pick<StatedSettings, 'resolution' | 'screenPath'>) => [
  rig,
  p.resolution,
  p.screenPath === 'panel',
];

/** What of the sides is kept: the rigs as they stand now. */
async function keptOf(f: z.output<typeof statedFigureBody>): Promise<StatedFigureKept> {
  const { settings, said, note } = f;
  const rig = await resolveRig(f.rig, 'rig');
  if (!('other' in said)) return { rig, settings, said, note };
  const other = await resolveRig(said.other.rig, 'said/other/rig');
  if (said.kind === 'cards' && other.card === rig.card)
    throw invalid('said/other/rig/cardId', 'Card: the same on both sides');
  if (said.kind === 'ratio' && isDeepStrictEqual(sideOf(rig, settings), sideOf(other, said.other)))
    throw invalid(
      'said/other/rig/cardId',
      'Both sides are the same: choose another setup, card, slot, resolution or picture',
    );
  return {
    rig,
    settings,
    said: { ...said, other: { ...said.other, rig: other } } as StatedFigureKept['said'],
    note,
  };
}

/** Keeps a stated figure; the same id twice is answered, not doubled. */
export async function addStated(
  s: Services,
  f: z.output<typeof statedFigureBody>,
  actor: Actor,
): Promise<'stored' | 'same'> {
  if (!(await exists(ProfileModel, f.titleId))) throw invalid('titleId', 'No title has this id');
  const fresh = await createOnce(StatedFigureModel, {
    id: f.id,
    origin: 'own' as Origin,
    createdAt: s.now(),
    createdBy: actor.id,
    titleId: f.titleId,
    setupId: f.rig.setupId,
    body: await keptOf(f),
  });
  return fresh ? 'stored' : 'same';
}

/** Takes a stated figure back. */
export async function removeStated(id: string): Promise<void> {
  if ((await StatedFigureModel.destroy({ where: { id } })) === 0) throw notFound('figure');
}

/** Stated figures out of a file; titles were read before them. */
export async function loadStatedFigures(l: Load): Promise<void> {
  for (const [i, f] of l.bundle.statedFigures.entries()) {
    const { id, titleId: inFile, at: stated, ...body } = f;
    const titleId = l.titles.get(idFromFile(inFile));
    const place = `statedFigures/${i}`;
    if (!titleId) at(place, new HttpProblem(400, `The file holds no title "${inFile}"`));
    const fresh = await createOnce(StatedFigureModel, {
      id: idFromFile(id),
      origin: l.origin,
      createdAt: new Date(stated),
      createdBy: l.by,
      titleId: titleId as string,
      setupId: null,
      body: body as StatedFigureKept,
    });
    count(l, fresh ? 'stored' : 'same', 'statedFigures');
  }
}

/** All of them, in a fixed order, for a file. */
export async function exportStatedFigures(): Promise<Bundle['statedFigures']> {
  const rows = await StatedFigureModel.findAll({ order: ['id'] });
  return rows.map((r) => ({
    id: r.id,
    titleId: r.titleId,
    at: r.createdAt.toISOString(),
    ...r.body,
  })) as Bundle['statedFigures'];
}
