import type { Bundle } from '@ruddy/core/workshop/contract';
import type { PartModel } from './models/part';

/** A part as a bundle holds it. */
export function partInFile(p: PartModel): Bundle['parts'][number] {
  const { id, kind, spec, sources } = p;
  return { id, kind, spec, sources, retired: p.retiredAt !== null } as Bundle['parts'][number];
}
