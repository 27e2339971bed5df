import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NO_SETTINGS, NOTHING_INSTALLED } from '@ruddy/core/parts';
import {
  NO_COST_SAID,
  NO_DOCKED,
  SETUP_FIELD_NAMES,
  SETUP_FIELDS,
  setupFields,
  type SetupFields,
} from '@ruddy/core/setups';
import { setupBody, setupPatch, setupSchema, type Setup } from '@ruddy/core/setups/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { addSetup, start, type Harness } from './harness';

/** A value of each field that is not its empty one; a new field does not compile without an example here. */
const EXAMPLES: SetupFields = {
  loads: [
    {
      kind: 'hub',
      downGbps: 5,
      upGbps: 3,
      ownLead: 'no',
      pictureGbps: null,
      asymmetric: null,
      allocates: null,
    },
  ],
  installed: { ...NOTHING_INSTALLED, driver: '551.2' },
  settings: { ...NO_SETTINGS, toPanel: 'yes' },
  docked: { ...NO_DOCKED, docked: { ...NO_DOCKED.docked, powerMode: 'Performance' } },
  pins: [{ role: 'driver', version: '551.2', reason: 'worked' }],
  uses: [{ work: 'games', resolution: '1440p', note: '' }],
  present: 'the graphics of the processor',
  cost: { ...NO_COST_SAID, budgetMinor: 90_000 },
  notes: 'to keep',
};

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

describe('every field of a setup', () => {
  it.each(SETUP_FIELD_NAMES)('%s stands in request, patch and answer', (name) => {
    expect([name in setupBody.shape, name in setupPatch.shape, name in setupSchema.shape]).toEqual([
      true,
      true,
      true,
    ]);
    expect(EXAMPLES[name]).not.toEqual(SETUP_FIELDS[name].empty);
  });

  it('is empty in a new setup that does not name it', async () => {
    const setup = await addSetup(h, 'Empty');
    expect(setupFields(setup)).toEqual(setupFields({}));
  });

  it('keeps what a patch of another field does not name', async () => {
    const { id } = await addSetup(h, 'Kept');
    for (const name of SETUP_FIELD_NAMES) {
      const { rev } = (await h.api.get(`/api/setups/${id}`)).body as Setup;
      const patch = { [name]: EXAMPLES[name] };
      const r = await h.api.patch(`/api/setups/${id}`).set('If-Match', `"${rev}"`).send(patch);
      expect([name, r.status, r.body.errors]).toEqual([name, 200, undefined]);
    }
    expect(setupFields((await h.api.get(`/api/setups/${id}`)).body as Setup)).toMatchObject(
      EXAMPLES,
    );
  });

  // Last: Sequelize's models belong to the database connected last.
  it('is stored by patch, in revision, clone and bundle', async () => {
    const { id, rev } = await addSetup(h, 'Full');
    const patched = (await h.api
      .patch(`/api/setups/${id}`)
      .set('If-Match', `"${rev}"`)
      .send(EXAMPLES)
      .expect(200)
      .then((r) => r.body as unknown)) as Setup;
    expect(setupFields(patched)).toMatchObject(EXAMPLES);
    const stored = setupFields(patched);

    const revisions = await h.rows<{ snapshot: SetupFields }>(
      'SELECT snapshot FROM setup_revisions WHERE setup_id = $1 ORDER BY rev DESC LIMIT 1',
      [id],
    );
    expect(setupFields(revisions[0]?.snapshot ?? {})).toEqual(stored);

    const body = { id: randomUUID(), name: 'Copy' };
    const copy = (await h.api.post(`/api/setups/${id}/clone`).send(body)).body as Setup;
    expect(setupFields(copy)).toEqual(stored);

    const bundle = (await h.api.get('/api/bundle')).body as Bundle;
    const other = await start();
    await other.api.post('/api/bundle').send(bundle).expect(200);
    const there = (await other.api.get(`/api/setups/${id}`)).body as Setup;
    await other.close();
    expect(setupFields(there)).toEqual(stored);
  });
});
