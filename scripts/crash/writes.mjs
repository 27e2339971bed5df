import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { patient } from '../lib/patience.mjs';

const socket = {
  connector: 'usb-c',
  standard: 'usb4-40',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: 4,
  lanes: 4,
};
const HOST = (model) => ({
  maker: 'Cut',
  model,
  form: 'laptop',
  sockets: ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((key) => ({ key, ...socket })),
});
const CABLE = (model) => ({
  maker: 'Cut',
  model,
  connector: 'usb-c',
  construction: 'passive',
  lengthMm: 700,
  markedGbps: 40,
});
const DOCK = (model) => ({
  maker: 'Cut',
  model,
  form: 'enclosure',
  connector: 'usb-c',
  uplink: 'usb4-40',
  slotGen: 3,
  slotLanes: 4,
});
const CARD = (model) => ({ maker: 'Cut', model, pcieGen: 4, lanes: 16 });

/** Refused by a server that is well: then the harness is wrong, or a write was taken for another. */
export class Refused extends Error {}

/** JSON to the server under test. A refusal by the server itself is a fault of the test; no answer at all is what is looked for. */
async function send(url, method, path, body, headers = {}) {
  const r = await fetch(`${url}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json', ...headers },
    body: typeof body === 'string' || body instanceof Uint8Array ? body : JSON.stringify(body),
    signal: AbortSignal.timeout(patient(20_000)),
  });
  const answer = await r.json();
  if (r.status >= 400 && r.status < 500)
    throw new Refused(`${method} ${path}: ${r.status} ${JSON.stringify(answer).slice(0, 300)}`);
  if (r.status >= 500) throw new Error(`${r.status}`);
  return answer;
}

const post = (path, body) => (url) => send(url, 'POST', path, body);

/** What everything hangs on: parts, setups, a title. */
export async function begin(url, random) {
  const parts = {};
  for (const [kind, spec] of Object.entries({
    host: HOST('H'),
    cable: CABLE('K'),
    dock: DOCK('D'),
    card: CARD('C'),
  })) {
    parts[kind] = random.id();
    await send(url, 'POST', '/parts', { id: parts[kind], kind, spec });
  }
  const slots = {
    host: parts.host,
    socket: 'a',
    path: [parts.cable],
    dock: parts.dock,
    card: parts.card,
  };
  const setups = [];
  for (let i = 0; i < 4; i++) {
    const id = random.id();
    await send(url, 'POST', '/setups', { id, name: `Setup ${i}`, slots });
    setups.push(id);
  }
  const title = random.id();
  await send(url, 'POST', '/profiles', { id: title, name: 'Cut title', kind: 'title' });
  const member = random.id();
  await send(url, 'POST', '/members', { id: member, name: 'Cut member' });
  return { parts, slots, setups, title, member };
}

async function storeRun(url, world, id, setup, values) {
  const bytes = new Uint8Array(Float32Array.from(values).buffer);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  await send(url, 'PUT', `/captures/${sha256}?n=${values.length}`, gzipSync(bytes), {
    'content-type': 'application/octet-stream',
  });
  const channels = [{ channel: 'frames', n: values.length, sha256 }];
  return send(url, 'POST', `/setups/${setup}/runs`, {
    id,
    titleId: world.title,
    kind: 'frames',
    channels,
  });
}

async function storeFile(url, tag, rows) {
  const csv = [
    'maker,model,variant,connector',
    ...Array.from({ length: rows }, (_, i) => `Cut,row ${i},${tag},usb-c`),
  ].join('\n');
  let job = await send(url, 'POST', `/imports?kind=cable&mode=store&name=${tag}`, csv, {
    'content-type': 'text/csv',
  });
  while (job.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 10));
    job = await send(url, 'GET', `/jobs/${job.id}`, undefined);
  }
  if (job.state !== 'done') throw new Error(`the import ${job.state}`);
}

/**
 * Kinds of writes: each makes an id and a way to send it that may be used twice. `rows` of a file are all there or none.
 */
export const WRITES = {
  note: (r, w) => {
    const id = r.id();
    return {
      id,
      send: post(`/setups/${r.of(w.setups)}/notes`, {
        id,
        text: `note ${id}`,
        happenedOn: '2026-01-01',
      }),
    };
  },
  outcome: (r, w) => {
    const id = r.id();
    return {
      id,
      send: post(`/setups/${r.of(w.setups)}/outcomes`, {
        id,
        outcome: r.of(['works', 'fails']),
        happenedOn: '2026-01-01',
        note: id,
      }),
    };
  },
  setup: (r, w) => {
    const id = r.id();
    return { id, send: post('/setups', { id, name: `Made ${id.slice(0, 8)}`, slots: w.slots }) };
  },
  part: (r) => {
    const id = r.id();
    return { id, send: post('/parts', { id, kind: 'host', spec: HOST(`H ${id}`) }) };
  },
  bundle: (r) => {
    const id = r.id();
    const part = (kind, spec) => ({ id: `${id}.${kind}`, kind, spec: spec(`B ${id}`) });
    const parts = [part('host', HOST), part('dock', DOCK), part('card', CARD)];
    const slots = {
      host: `${id}.host`,
      socket: 'a',
      path: [],
      dock: `${id}.dock`,
      card: `${id}.card`,
    };
    const at = '2026-01-01T10:00:00Z';
    const setups = [
      { id, name: `From a file ${id.slice(0, 8)}`, state: 'planned', slots, createdAt: at },
    ];
    const outcomes = [
      {
        id: `${id}.o`,
        setupId: id,
        outcome: 'works',
        happenedOn: '2026-01-01',
        recordedAt: at,
        seq: 2,
      },
    ];
    return {
      id,
      send: post('/bundle', { format: 'ruddy-bridge/bundle', version: 1, parts, setups, outcomes }),
    };
  },
  run: (r, w) => {
    const id = r.id();
    const values = Array.from({ length: r.int(50, 400) }, () => 10 + r.next() * 10);
    const setup = r.of(w.setups);
    return { id, send: (url) => storeRun(url, w, id, setup, values) };
  },
  piece: (r, w) => {
    const id = r.id();
    return {
      id,
      send: post('/items', { id, partId: w.parts.cable, label: `K ${id.slice(0, 8)}` }),
    };
  },
  loan: (r, w) => {
    const id = r.id();
    const item = r.id();
    const send2 = async (url) => {
      await send(url, 'POST', '/items', {
        id: item,
        partId: w.parts.cable,
        label: `K ${item.slice(0, 8)}`,
      });
      await send(url, 'POST', '/loans', {
        id,
        itemId: item,
        memberId: w.member,
        out: { fromOn: '2026-01-01' },
      });
    };
    return { id, send: send2 };
  },
  file: (r) => {
    const id = r.id();
    return { id, rows: 20, once: true, send: (url) => storeFile(url, id, 20) };
  },
};
export const FILE_ROWS = 20;
