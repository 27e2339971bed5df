import { randomUUID } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { caller, KEEPER, password, signIn, withMembers } from './members.mjs';

const AT_ONCE = 8;

const atOnce = (work) => Promise.all(Array.from({ length: AT_ONCE }, (_, i) => work(i)));
const count = (answers, ...statuses) => answers.filter((r) => statuses.includes(r.status)).length;

const cable = (id, model) => ({
  id,
  kind: 'cable',
  spec: {
    maker: 'Race',
    model,
    variant: '',
    connector: 'usb-c',
    construction: 'passive',
    lengthMm: { lo: 500, hi: 500 },
  },
});

/** Sessions that outlive the password they were begun with. */
async function oldPasswords({ url, keeper, rounds, forgetTries }) {
  const id = randomUUID();
  await keeper('POST', '/api/members', {
    id,
    name: 'Racing R',
    role: 'member',
    password: password(0),
  });
  let tried = 0;
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    // What came too late counts as a wrong try: the next round would be slowed, and try nothing.
    forgetTries();
    const mine = await signIn(url, 'Racing R', n);
    const me = caller(url, mine.cookie);
    const change = () =>
      me('POST', `/api/members/${id}/password`, {
        current: password(n),
        password: password(n + 1),
      });
    const [changed, ...others] = await Promise.all([
      change(),
      ...[1, 2, 3].map(() => signIn(url, 'Racing R', n)),
    ]);
    const odd =
      [mine, changed].find((r) => r.status !== 200) ??
      others.find((r) => ![200, 401].includes(r.status));
    if (odd) throw new Error(`round ${n} tried nothing: ${odd.status} ${JSON.stringify(odd.body)}`);
    for (const r of others) {
      tried += 1;
      if (r.status === 200 && (await caller(url, r.cookie)('GET', '/api/me')).body.member !== null)
        lost += 1;
    }
  }
  return { tried, lost };
}

/** The same part created at once: stored once, and nobody is told that it failed. */
async function sameId({ keeper, rounds }) {
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    const part = cable(randomUUID(), `Same ${n}`);
    const answers = await atOnce(() => keeper('POST', '/api/parts', part));
    if (count(answers, 200, 201) !== AT_ONCE || count(answers, 201) !== 1) lost += 1;
  }
  return { tried: rounds, lost };
}

/** Different parts of one name created at once: one is stored. */
async function sameName({ keeper, rounds }) {
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    const answers = await atOnce(() =>
      keeper('POST', '/api/parts', cable(randomUUID(), `Name ${n}`)),
    );
    if (count(answers, 201) !== 1 || count(answers, 409, 422) !== AT_ONCE - 1) lost += 1;
  }
  return { tried: rounds, lost };
}

/** One revision edited at once: one edit is kept, the others are told. */
async function sameRevision({ keeper, rounds }) {
  const part = cable(randomUUID(), 'Edited');
  await keeper('POST', '/api/parts', part);
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    const { rev } = (await keeper('GET', `/api/parts/${part.id}`)).body;
    const answers = await atOnce((i) =>
      keeper(
        'PATCH',
        `/api/parts/${part.id}`,
        { spec: { ...part.spec, family: `${n} ${i}` } },
        { 'If-Match': `"${rev}"` },
      ),
    );
    if (count(answers, 200) !== 1 || count(answers, 412) !== AT_ONCE - 1) lost += 1;
  }
  return { tried: rounds, lost };
}

/** One item lent at once: lent once. */
async function sameItem({ keeper, rounds }) {
  const part = cable(randomUUID(), 'Lent');
  const memberId = randomUUID();
  await keeper('POST', '/api/parts', part);
  await keeper('POST', '/api/members', {
    id: memberId,
    name: 'Borrower',
    role: 'member',
    password: null,
  });
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    const itemId = randomUUID();
    await keeper('POST', '/api/items', { id: itemId, partId: part.id, label: `L ${n}` });
    const today = new Date().toISOString().slice(0, 10);
    const answers = await atOnce(() =>
      keeper('POST', '/api/loans', {
        id: randomUUID(),
        itemId,
        memberId,
        out: { fromOn: today, dueOn: null },
      }),
    );
    if (count(answers, 201) !== 1) lost += 1;
  }
  return { tried: rounds, lost };
}

/** The only two keepers retire each other: one stays. */
async function lastKeeper({ url, keeper, rounds }) {
  let lost = 0;
  const find = async (name) =>
    (await keeper('GET', '/api/members')).body.items.find((m) => m.name === name);
  for (let n = 0; n < rounds; n++) {
    const id = randomUUID();
    const name = `Second ${n}`;
    await keeper('POST', '/api/members', { id, name, role: 'keeper', password: password(0) });
    const second = caller(url, (await signIn(url, name, 0)).cookie);
    const first = await find(KEEPER);
    const other = await find(name);
    const retire = (who, m) =>
      who('PATCH', `/api/members/${m.id}`, { role: 'member' }, { 'If-Match': `"${m.rev}"` });
    const answers = await Promise.all([retire(keeper, other), retire(second, first)]);
    if (count(answers, 200) !== 1) lost += 1;
    // Whoever is left brings the first back, for the next round.
    const now = await second('GET', '/api/members');
    if (now.status === 200) {
      const k = now.body.items.find((m) => m.name === KEEPER);
      if (k.role !== 'keeper')
        await second(
          'PATCH',
          `/api/members/${k.id}`,
          { role: 'keeper' },
          { 'If-Match': `"${k.rev}"` },
        );
      const s = (await keeper('GET', '/api/members')).body.items.find((m) => m.name === name);
      if (s.role === 'keeper')
        await keeper(
          'PATCH',
          `/api/members/${s.id}`,
          { role: 'member' },
          { 'If-Match': `"${s.rev}"` },
        );
    }
  }
  return { tried: rounds, lost };
}

/** A defect on purpose: what is counted is read and then written back, so that counts are lost. */
async function defect({ rounds }) {
  let lost = 0;
  for (let n = 0; n < rounds; n++) {
    let stored = 0;
    await atOnce(async () => {
      const read = stored;
      await setImmediate();
      stored = read + 1;
    });
    if (stored !== AT_ONCE) lost += 1;
  }
  return { tried: rounds, lost };
}

const RACES = {
  'sign-in beside a change of the password': oldPasswords,
  'one id': sameId,
  'one name': sameName,
  'one revision': sameRevision,
  'one item': sameItem,
  'the last keeper': lastKeeper,
};

/** Everything that is looked at and then written, asked for by several at once. */
export async function races({ dataDir, rounds = 10, seeded = false }) {
  const results = {};
  await withMembers({ dataDir }, async ({ url, keeper, forgetTries }) => {
    const all = seeded ? { 'a seeded defect': defect } : RACES;
    for (const [name, race] of Object.entries(all)) {
      results[name] = await race({ url, keeper, rounds, forgetTries });
      forgetTries();
    }
  });
  const sum = (key) => Object.values(results).reduce((n, r) => n + r[key], 0);
  return { results, tried: sum('tried'), lost: sum('lost') };
}
