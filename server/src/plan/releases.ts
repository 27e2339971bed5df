import { originAfterChange } from '../platform/db/columns';
import { slotRows } from '../setups/queries/slot-rows';
import { inTransaction } from '../platform/db/transaction';
import { Op } from 'sequelize';
import { pinsLeft } from '@ruddy/core/bring-up';
import {
  compareVersions,
  holdRequirements,
  partName,
  releaseTouches,
  ROLE_SUBJECT,
  subjectsOf,
} from '@ruddy/core/chain';
import { entryVersions } from '@ruddy/core/compatibility';
import type { ReleaseSpec } from '@ruddy/core/parts';
import type { InstalledBody, TouchedRow } from '@ruddy/core/plan/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { EventModel } from '../setups/models/event';
import { PartModel } from '../parts/models/part';
import { SetupModel } from '../setups/models/setup';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { chainOf } from '../setups/chain';
import { groundsFor } from './context';
import { storeOutcome } from './outcomes';
import { keepRevision, readSetup } from '../setups/setup-store';
import { noteVersion } from '../setups/versions';

function currentReleases(have: string, version: string): TouchedRow['stands'] {
  const compared = have === '' ? null : compareVersions(have, version);
  if (compared === null) return 'not known';
  return compared === 0 ? 'same' : compared < 0 ? 'older' : 'newer';
}

/** The setups a release touches: those with its part in their chain, what is installed there, and what it would mend. */
export async function touchedBy(s: Services, releaseId: string): Promise<TouchedRow[]> {
  const part = await PartModel.findOne({ where: { id: releaseId, kind: 'release' } });
  if (!part) throw notFound('release');
  const release = part.spec as ReleaseSpec;
  const setups = await SetupModel.findAll({
    where: { state: { [Op.ne]: 'retired' } },
    order: [['name', 'ASC']],
  });
  const slots = await slotRows(setups.map((m) => m.id));
  const all = setups.map((m) => ({ m, chain: chainOf(slots.get(m.id) ?? [], m.details) }));
  const touched = all.filter(({ chain }) => releaseTouches(release, chain));
  const { requirements = [], asOf } = await groundsFor(
    s,
    touched.map((t) => t.chain),
  );
  return touched.map(({ m, chain }) => {
    const have = chain.installed[release.what];
    const after = { ...chain, installed: { ...chain.installed, [release.what]: release.variant } };
    const open = (c: typeof chain) =>
      holdRequirements(requirements, [], c, asOf).filter(
        (h) => h.role === release.what && h.state !== 'met',
      );
    const pins = (m.details.pins ?? []).filter((p) => p.role === release.what);
    const pin = pinsLeft(pins, { [release.what]: release.variant })[0] ?? null;
    const still = open(after).map((h) => h.index);
    return {
      id: m.id,
      name: m.name,
      state: m.state,
      rev: m.rev,
      part: subjectsOf(chain, ROLE_SUBJECT[release.what])
        .map((p) => partName(p))
        .join(', '),
      have,
      pin: pin && { version: pin.version, reason: pin.reason },
      stands: currentReleases(have, release.variant),
      mends: open(chain).flatMap((h) => (still.includes(h.index) ? [] : [h.requirement.variant])),
    };
  });
}

/**
 * Marks a version as installed on a setup: the setup's version changes, its record keeps when and from what, and an
 * outcome, if given, goes into the log. One transaction; a repeated id is answered with the present setup.
 */
export async function markInstalled(
  s: Services,
  setupId: string,
  body: InstalledBody,
  revision: number,
  actor: Actor,
): Promise<Setup> {
  const at = s.now();
  const today = at.toISOString().slice(0, 10);
  if (body.on > today) throw invalid('on', `Date: ${body.on} is in the future; today is ${today}`);
  return inTransaction(async () => {
    const { row, rows, setup } = await readSetup(setupId, true);
    const known = await EventModel.findByPk(body.id, { raw: true });
    if (known && known.setupId === setupId && known.kind === 'version') return setup;
    if (known)
      throw new HttpProblem(409, 'Another fact has this id', {
        errors: [{ path: 'id', message: 'Another fact has this id' }],
      });
    checkRevision(revision, row.rev, setup);
    const from = setup.installed[body.role];
    const details = {
      ...row.details,
      installed: { ...setup.installed, [body.role]: body.version },
    };
    const origin = originAfterChange(row.origin);
    await row.update({ details, origin, rev: row.rev + 1, savedAt: at });
    const when = { at, happenedAt: new Date(`${body.on}T12:00:00Z`), by: actor.id };
    await noteVersion(setupId, { id: body.id, role: body.role, from, to: body.version }, when);
    if (body.outcome) {
      const chain = chainOf(rows, details);
      const versions = entryVersions(details.installed);
      const said = {
        symptoms: [],
        fixes: [],
        provenance: 'own' as const,
        confidence: 1,
        order: null,
        corrects: null,
      };
      await storeOutcome(
        setupId,
        { ...said, ...body.outcome, happenedOn: body.on, versions },
        chain,
        { origin: 'own', at, by: actor.id },
      );
    }
    await keepRevision(setupId, null, actor.id, at);
    return (await readSetup(setupId)).setup;
  });
}
