import { mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { openCluster } from '../lib/cluster.mjs';
import { quiet } from '../lib/run.mjs';
import { stopServer } from '../lib/server.mjs';
import { broken, standing } from './held.mjs';
import { chance } from './random.mjs';
import { serveOn } from './serve.mjs';
import { begin, Refused, WRITES } from './writes.mjs';

const MB = 1 << 20;
const DISK_MB = 160;
const LEFT_MB = 5;

/**
 * A disk of its own that fills up while somebody writes: what was confirmed is there afterwards, nothing is there by half, and with room
 * again writing goes on. Needs the right to mount; without it the reason is given instead.
 */
export async function diskFull({ seed, dataDir }) {
  const disk = join('/var/tmp', `ruddy-disk-${process.pid}`);
  mkdirSync(disk, { recursive: true });
  const mounted = quiet('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m,mode=755`, 'tmpfs', disk]);
  if (mounted.code !== 0) {
    rmSync(disk, { recursive: true, force: true });
    return {
      skipped: `no disk of its own can be mounted here: ${mounted.out.trim().split('\n').pop()}`,
    };
  }
  const random = chance(seed);
  const cluster = await openCluster(dataDir, { place: join(disk, 'postgres') });
  let server = null;
  const filler = join(disk, 'filler');
  const total = {
    writes: 0,
    confirmed: 0,
    refused: 0,
    full: 0,
    after: 0,
    lost: 0,
    half: 0,
    doubled: 0,
    restarted: 0,
  };
  try {
    cluster.createDatabase('disk');
    server = await serveOn(cluster.url('disk'));
    const url = `http://127.0.0.1:${server.port}`;
    const world = await begin(url, random);
    const { bavail, bsize } = statfsSync(disk);
    writeFileSync(filler, Buffer.alloc(Math.max(0, bavail * bsize - LEFT_MB * MB)));
    const sent = [];
    const write = async () => {
      const kind = random.of(['run', 'part', 'bundle', 'setup', 'outcome']);
      const w = { kind, ...WRITES[kind](random, world), confirmed: false };
      sent.push(w);
      total.writes++;
      try {
        await w.send(url);
        w.confirmed = true;
        return '';
      } catch (error) {
        if (error instanceof Refused) throw error;
        return error.message;
      }
    };
    // Until the disk has said twenty times that it is full, or the database itself has stopped over it.
    for (let i = 0; i < 20_000 && total.full < 20; i++) {
      const why = await write();
      if (why === '507' || why === '503' || why === '500') total.full++;
      if (why === '500') total.refused++;
    }
    rmSync(filler);
    if (cluster.psql('disk', 'SELECT 1').code !== 0) {
      total.restarted++;
      const again = await cluster.again();
      if (again.code !== 0) throw new Error(`the database did not come back: ${again.out}`);
    }
    for (let i = 0; i < 200 && total.after < 20; i++) {
      if ((await write()) === '') total.after++;
      else await new Promise((resolve) => setTimeout(resolve, 100));
    }
    const look = new pg.Client(cluster.url('disk'));
    await look.connect();
    const found = await standing(look, sent);
    for (const w of sent) {
      const s = found.get(w.id);
      if (s === 'half' || s === 'doubled') total[s]++;
      if (w.confirmed && s === 'absent') total.lost++;
    }
    total.confirmed = sent.filter((w) => w.confirmed).length;
    total.rules = await broken(look);
    await look.end();
    return total;
  } finally {
    if (server?.child) await stopServer(server.child);
    cluster.close();
    quiet('umount', [disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}
