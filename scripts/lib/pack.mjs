import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const PACKED = /\.(js|css|svg|html)$/;

/** Writes a Brotli and a gzip copy beside each built file, so that the server packs none at a request. */
export function pack(dir) {
  for (const f of readdirSync(dir).filter((name) => PACKED.test(name))) {
    const bytes = readFileSync(join(dir, f));
    const params = { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
    writeFileSync(join(dir, `${f}.br`), brotliCompressSync(bytes, { params }));
    writeFileSync(join(dir, `${f}.gz`), gzipSync(bytes, { level: 9 }));
  }
}
