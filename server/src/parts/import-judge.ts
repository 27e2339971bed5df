import equal from 'fast-deep-equal';
import { checked } from '@ruddy/core/base';
import { partName } from '@ruddy/core/chain';
import {
  type AnySpec,
  type CellError,
  type HostSpec,
  PART_SCHEMAS,
  type PartKind,
  partQuestions,
  type SourceMap,
  specOf,
  wordOf,
} from '@ruddy/core/parts';
import type { RowOutcome, ImportRow } from '@ruddy/core/parts/contract';
import { questionText } from '@ruddy/core/parts/text';
import { unstorable } from '../platform/http/storable';
import { idFromFile, newId } from '../platform/db/ids';
import type { Incoming } from './import-read';
import type { ToStore } from './queries/import-store';

/** A stored part, to compare a file's row with. */
export interface Stored {
  id: string;
  kind: PartKind;
  spec: AnySpec;
  sources: SourceMap;
  retired: boolean;
  key: string;
}

/** What becomes of an entry, and what is to be written. */
export interface Judged {
  fate: ImportRow;
  /** What the row takes: the part it means and, unless retired, its name. No other row of the file may take the same. */
  takes: readonly string[];
  store: ToStore | null;
}

/** The name of a part as it is told apart by: kind, maker, model and variant, whatever their case. */
export function keyOf(kind: PartKind, v: Record<string, unknown>): string {
  return `${kind}\u001f${wordOf(v['maker'])}\u001f${wordOf(v['model'])}\u001f${wordOf(v['variant'])}`.toLowerCase();
}

/** What an entry calls itself, good or not. */
function saidName(e: Incoming): string {
  const words = ['maker', 'model', 'variant'].map((k) => wordOf(e.values[k]));
  return words.join(' ').trim();
}

const columnOf = (path: readonly PropertyKey[]) =>
  path[0] === 'sockets' && path.length > 2
    ? `socket.${String(path[2])}`
    : String(path[0] ?? 'entry');

/** The row in the file a complaint about a socket belongs to. */
function rowOf(e: Incoming, spec: Record<string, unknown>, path: readonly PropertyKey[]): number {
  if (path[0] !== 'sockets' || typeof path[1] !== 'number') return e.row;
  const socket = (spec['sockets'] as Record<string, unknown>[] | undefined)?.[path[1]];
  return (
    e.sockets.find((s) => s.values === socket || s.values['key'] === socket?.['key'])?.row ?? e.row
  );
}

/** What an entry says: the whole spec it would leave, or the cells that are wrong. */
function specSaid(e: Incoming, stored: Stored | null): { spec: AnySpec } | { wrong: CellError[] } {
  if (e.errors.length > 0) return { wrong: [...e.errors] };
  if (stored && stored.kind !== e.kind)
    return { wrong: [{ row: e.row, column: 'id', why: `this id is a ${stored.kind} here` }] };
  const loose = e.whole
    ? (e.whole as unknown as Record<string, unknown>)
    : specOf(e, stored?.spec ?? null);
  const parsed = checked(PART_SCHEMAS[e.kind], loose);
  if (!parsed.success)
    return {
      wrong: parsed.error.issues.map((i) => ({
        row: rowOf(e, loose, i.path),
        column: columnOf(i.path),
        why: i.message,
      })),
    };
  // The text of a CSV was looked at whole when it came; in JSON an escape may hide what a database cannot hold.
  const odd = e.whole ? unstorable(parsed.data) : null;
  if (odd === null) return { spec: parsed.data as AnySpec };
  const why = 'holds a null character or half of a character';
  return { wrong: [{ row: e.row, column: odd, why }] };
}

function wrongEntry(e: Incoming, errors: readonly CellError[]): Judged {
  const notes = errors.map(({ row, column, why }) => ({ row, column, what: why }));
  return {
    fate: { row: e.row, fate: 'wrong', part: saidName(e), notes },
    takes: [],
    store: null,
  };
}

/**
 * Judge one entry against the part here that it means, and the one that has its name: wrong with each place, odd with each question, new, changed or the same.
 */
export function judge(e: Incoming, stored: Stored | null, namesake: Stored | null = null): Judged {
  const said = specSaid(e, stored);
  if ('wrong' in said) return wrongEntry(e, said.wrong);
  const { spec } = said;
  const retired = e.retired ?? stored?.retired ?? false;
  if (stored && namesake && namesake.id !== stored.id && !retired) {
    const why = 'another part here has this name; change or retire that one first';
    return wrongEntry(e, [{ row: e.row, column: 'model', why }]);
  }
  const sources = e.sources ?? stored?.sources ?? {};
  const same =
    stored !== null &&
    equal(stored.spec, spec) &&
    stored.retired === retired &&
    equal(stored.sources, sources);
  const asked = partQuestions(e.kind, spec).filter((q) => sources[q.path]?.kept !== true);
  const fate: RowOutcome = same ? 'same' : asked.length > 0 ? 'asks' : stored ? 'changed' : 'new';
  const id = stored?.id ?? (e.id === null ? newId() : idFromFile(e.id));
  const notes = asked.map((q) => ({ row: e.row, column: q.path, what: questionText(q) }));
  const store = {
    id,
    kind: e.kind,
    spec: spec as AnySpec & Partial<HostSpec>,
    sources,
    retired,
    fresh: stored === null,
  };
  return {
    fate: { row: e.row, fate, part: partName(spec), notes: same ? [] : notes },
    takes: retired ? [id] : [id, keyOf(e.kind, e.values)],
    store: same ? null : store,
  };
}
