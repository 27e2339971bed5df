import { createHash, randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import type { RunEntry } from '@ruddy/core/runs/contract';
import type { Harness } from './harness';

/** Values as a client sends them. */
export function packed(values: readonly number[]) {
  const bytes = Buffer.alloc(values.length * 4);
  values.forEach((v, i) => bytes.writeFloatLE(v, i * 4));
  return {
    sha256: createHash('sha256').update(bytes).digest('hex'),
    n: values.length,
    data: gzipSync(bytes),
  };
}

export function put(h: Harness, sha: string, n: number, data: Buffer) {
  return h.api
    .put(`/api/captures/${sha}?n=${n}`)
    .set('Content-Type', 'application/octet-stream')
    .send(data);
}

export async function send(
  h: Harness,
  values: readonly number[],
): Promise<{ n: number; sha256: string }> {
  const p = packed(values);
  const r = await put(h, p.sha256, p.n, p.data);
  if (r.status > 201) throw new Error(JSON.stringify(r.body));
  return { n: p.n, sha256: p.sha256 };
}

export async function title(h: Harness, name = 'Peat Rally', kind = 'title'): Promise<string> {
  return (await h.api.post('/api/profiles').send({ id: randomUUID(), name, kind })).body
    .id as string;
}

export const steady = (n: number, ms: number) => Array.from({ length: n }, () => ms);

export async function addRun(
  h: Harness,
  setupId: string,
  values: readonly number[],
  over: object = {},
): Promise<RunEntry> {
  const channels = [{ channel: 'frames', ...(await send(h, values)) }];
  const body = { id: randomUUID(), titleId: await title(h), kind: 'frames', channels, ...over };
  const r = await h.api.post(`/api/setups/${setupId}/runs`).send(body);
  if (r.status > 201) throw new Error(JSON.stringify(r.body));
  return r.body as RunEntry;
}
