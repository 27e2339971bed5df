import { literal, Op } from 'sequelize';
import { createOnce } from '../platform/db/rows';
import { CaptureModel } from './models/capture';
import { RunChannelModel } from './models/run-channel';
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';

const unpack = promisify(gunzip);
const VALUE_BYTES = 4;
/** Unreferenced capture values are kept this long: their run may still be uploading. */
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
  if ((await CaptureModel.count({ where: { sha256: c.sha256 } })) > 0) return 'same';
  const values = await valuesOf(c.data, c.n);
  if (digest(values) !== c.sha256)
    throw new HttpProblem(422, 'The bytes are not those of this SHA-256', {
      detail: 'Not saved; send them again.',
    });
  await createOnce(CaptureModel, { sha256: c.sha256, n: c.n, data: c.data, sentAt: c.at });
  return 'stored';
}

/** Lets go of captures sent some time ago that no run has named since. */
export async function dropUnusedCaptures(at: Date): Promise<void> {
  const named = literal(
    'NOT EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = captures.sha256)',
  );
  const before = new Date(at.getTime() - KEEP_HOURS * 3_600_000);
  await CaptureModel.destroy({ where: { [Op.and]: [{ sentAt: { [Op.lt]: before } }, named] } });
}

/** The packed values of one channel; null where the run has none. */
async function channelRow(runId: string, channel: string): Promise<CaptureModel | null> {
  const row = await RunChannelModel.findOne({ where: { runId, channel }, include: 'capture' });
  return row?.capture ?? null;
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
