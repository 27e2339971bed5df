import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';
import { FRAMES, JITTER, REPEAT, TITLES, TYPED } from './rigs.mjs';

/** Makes the demo runs out of rigs.mjs and puts them into observatory.json: `node demo/make-runs.mjs`. The same seeds give the same bytes. */

/** Random numbers from a seed (Mulberry32, public domain), and normal ones from them (Box and Muller). */
function randomFrom(seed) {
  let a = seed >>> 0;
  const next = () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}

const PIXELS = 2560 * 1440;
/** The mean frame of a rig in ms, as its truth has it; a cap holds it at its period. */
export function meanFrame(rig) {
  const [w, h] = rig.settings.resolution.split('x').map(Number);
  const card = rig.card * ((w * h) / PIXELS) ** 0.85;
  const ms = Math.max(rig.cpu, card) + rig.toll + (rig.back ?? 0);
  return rig.cap ? Math.max(ms, 1000 / rig.cap) : ms;
}

/** Frame times of one repeat in ms, to the hundredth, as a recorder writes them. */
function frames(rig, random) {
  const whole = meanFrame(rig) * (1 + REPEAT * random.normal());
  const out = [];
  const shown = [];
  let at = 0;
  let due = rig.odd?.hitch ? rig.odd.hitch.every * (0.4 + random.next() / 2) * 1000 : Infinity;
  while (at < rig.s * 1000) {
    // A log-normal of mean 1.
    let ms = whole * Math.exp(JITTER * random.normal() - JITTER ** 2 / 2);
    if (rig.cap) ms = 1000 / rig.cap + 0.15 * random.normal();
    if (rig.odd?.start && at < rig.odd.start * 1000) ms *= 2.1;
    if (at >= due) {
      ms = rig.odd.hitch.ms * (1 + 0.1 * random.normal());
      due += rig.odd.hitch.every * 1000 * (1 + 0.02 * random.normal());
    }
    ms = Math.round(ms * 100) / 100;
    out.push(ms);
    if (rig.odd?.generated) shown.push(Math.round(ms * (48 + 4 * random.next())) / 100, 0);
    if (rig.odd?.generated)
      shown[shown.length - 1] = Math.round((ms - shown[shown.length - 2]) * 100) / 100;
    at += ms;
  }
  return { out, shown };
}

/** Sensors beside a run, every half second. */
function sensors(rig, random) {
  const n = rig.s * 2;
  const busy = Math.min(1, (rig.card + 0.3) / meanFrame(rig));
  const lane = (usual, scatter) =>
    Array.from({ length: n }, () => Math.round((usual + scatter * random.normal()) * 10) / 10);
  return {
    'card-load': lane(100 * busy, 2),
    'card-w': lane(60 + 150 * busy, 4),
    'memory-mhz': lane(1750, 0.5),
    ...(rig.mhz && { 'card-mhz': lane(rig.mhz, 3) }),
    'card-c': lane(63, 1),
    'cpu-load': lane(38, 5),
    'wall-w': lane(120 + 168 * busy, 6),
  };
}

/** Titles, runs with their values, and a session of the demo. */
export function makeRuns() {
  const captures = new Map();
  const runs = [];
  const keep = (list) => {
    const bytes = Buffer.alloc(list.length * 4);
    list.forEach((v, i) => bytes.writeFloatLE(v, i * 4));
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    captures.set(sha256, {
      sha256,
      n: list.length,
      data: gzipSync(bytes, { level: 9 }).toString('base64'),
    });
    return { n: list.length, sha256 };
  };
  const minutes = (on, m) => new Date(Date.parse(on) + m * 60_000).toISOString();
  FRAMES.forEach((rig, i) => {
    for (let k = 0; k < rig.n; k++) {
      const random = randomFrom(1000 * (i + 2) + k);
      const { out, shown } = frames(rig, random);
      const channels = [{ channel: 'frames', ...keep(out) }];
      if (shown.length > 0) channels.push({ channel: 'shown', ...keep(shown) });
      if (rig.sensors)
        for (const [channel, list] of Object.entries(sensors(rig, random)))
          channels.push({ channel, t0Ms: 0, dtMs: 500, ...keep(list) });
      runs.push({
        id: `run.${rig.setup.slice(6)}.${i}.${k}`,
        setupId: rig.setup,
        titleId: `title.${rig.title}`,
        kind: 'frames',
        settings: rig.settings,
        context: {
          method: 'trace',
          disturbs: 'no',
          ...(rig.norm && { norm: true, sameProcessor: 'no', slotGen: 4, slotLanes: 16 }),
        },
        saw:
          rig.odd?.hitch && k === 0 ? 'A jerk every few seconds, seen on the screen as well' : '',
        channels,
        happenedAt: minutes(rig.on, 4 * k),
        recordedAt: minutes(rig.on, 4 * k + 3),
      });
    }
  });
  TYPED.forEach((t, i) => {
    (t.values ?? [null]).forEach((value, k) => {
      runs.push({
        id: `run.${t.setup.slice(6)}.typed.${i}.${k}`,
        setupId: t.setup,
        titleId: `title.${t.title}`,
        kind: t.kind,
        settings: t.settings,
        context: {
          method: t.kind === 'none' ? null : 'hand',
          disturbs: null,
          norm: t.norm ?? false,
        },
        result: value === null ? null : { value, unit: t.unit },
        reason: t.reason ?? '',
        saw: t.saw ?? '',
        happenedAt: minutes(t.on, 15 * k),
        recordedAt: minutes(t.on, 15 * k + 2),
      });
    });
  });
  const profiles = Object.entries(TITLES).map(([id, t]) => ({
    id: `title.${id}`,
    ...t,
  }));
  const sessions = [
    {
      id: 'session.path',
      name: 'Outside screen or panel',
      question: 'What does the way back to the panel cost?',
      title: 'Marsh Lanterns',
      factors: [
        { dimension: 'screenPath', levels: ['Screen on the card', "Host's own panel"], minutes: 5 },
        { dimension: 'resolution', levels: ['1920x1080', '2560x1440'], minutes: 1 },
      ],
      repeats: 3,
      percent: 5,
      setupIds: ['setup.dome'],
      createdAt: '2026-10-14T18:00:00.000Z',
    },
  ];
  return { profiles, runs, captures: [...captures.values()], mappings: [], sessions };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const file = new URL('observatory.json', import.meta.url);
  const old = JSON.parse(readFileSync(file, 'utf8'));
  const bundle = { ...old, ...makeRuns() };
  writeFileSync(file, `${JSON.stringify(bundle, null, 2)}\n`);
}
