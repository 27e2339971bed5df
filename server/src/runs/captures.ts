import { execute, select } from '../platform/db/database';
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';

const unpack = promisify(gunzip);
const VALUE_BYTES = 4;
/** Values nobody points to are kept this long: their run may still be on its way. */
const KEEP_HOURS = 24;

/** Values as they were packed: float32, little-endian, gzip. Inflating stops at what was declared. */
export async function valuesOf(packed: Buffer, n: number): Promise<Float32Array> {
  const bytes = await unpack(packed, { maxOutputLength: n * VALUE_BYTES }).catch(
    (e: Error & { code?: string }) => {
      const more = e.code === 'ERR_BUFFER_TOO_LARGE';
      throw invalid(
        'body',
        more ? `holds more than the ${n} values it declares` : `is no gzip: ${e.message}`,
      );
    },
  );
  if (bytes.length !== n * VALUE_BYTES)
    throw invalid('body', `declares ${n} values and holds ${bytes.length / VALUE_BYTES}`);
  const values = new Float32Array(n);
  for (let i = 0; i < n; i++) values[i] = bytes.readFloatLE(i * VALUE_BYTES);
  return values;
}

function digest(values: Float32Array): string {
  return createHash('sha256')
    .update(Buffer.from(values.buffer, values.byteOffset, values.byteLength))
    .digest('hex');
}

/** Keep packed values under the SHA-256 of what they unpack to. Sending them twice changes nothing. */
export async function keepCapture(c: {
  sha256: string;
  n: number;
  data: Buffer;
  at: Date;
}): Promise<'stored' | 'same'> {
  const [known] = await select('SELECT 1 FROM captures WHERE sha256 = $1', [c.sha256]);
  if (known) return 'same';
  const values = await valuesOf(c.data, c.n);
  if (digest(values) !== c.sha256)
    throw new HttpProblem(422, 'The bytes are not those of this SHA-256', {
      detail: 'Nothing stored; send them again.',
    });
  await execute(
    'INSERT INTO captures (sha256, n, data, sent_at) VALUES ($1, $2, $3, $4) ON CONFLICT (sha256) DO NOTHING',
    [c.sha256, c.n, c.data, c.at],
  );
  return 'stored';
}

/** Lets go of captures sent some time ago that no run has named since. */
export async function dropUnusedCaptures(at: Date): Promise<void> {
  await execute(
    `DELETE FROM captures c WHERE sent_at < $1 AND NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = c.sha256)`,
    [new Date(at.getTime() - KEEP_HOURS * 3_600_000)],
  );
}

/** The packed values of one channel; null where the run has none. */
async function channelRow(runId: string, channel: string) {
  const [row] = await select<{ n: number; data: Buffer }>(
    'SELECT c.n, c.data FROM run_channels r JOIN captures c USING (sha256) WHERE r.run_id = $1 AND r.channel = $2',
    [runId, channel],
  );
  return row ?? null;
}

export async function packedChannel(runId: string, channel: string): Promise<Buffer> {
  const row = await channelRow(runId, channel);
  if (!row) throw notFound('channel');
  return row.data;
}

export async function channelValues(runId: string, channel: string): Promise<Float32Array | null> {
  const row = await channelRow(runId, channel);
  return row && valuesOf(row.data, row.n);
}
