import type * as z from 'zod';
import { entryVersions } from '@ruddy/core/compatibility';
import type {
  troubleBody,
  troubleEvent,
  troubleNoteBody,
  TroubleRow,
  Troubles,
} from '@ruddy/core/troubleshoot/contract';
import { CAUSE_WORDS, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { becomes } from '../bring-up/bring-up';
import { eventsOf } from '../setups/events';
import { add, once, type Work } from '../setups/once';
import { storeOutcome } from '../plan/outcomes';
import { readSetup } from '../setups/setup-store';

type Kept = z.infer<typeof troubleEvent>;

/** Searches of a setup with their notes, oldest first; what was taken back is left out, with a search whose beginning was. */
async function troublesOf(setupId: string): Promise<TroubleRow[]> {
  const found = new Map<string, TroubleRow>();
  for (const e of await eventsOf(setupId, ['trouble'])) {
    const { id } = e;
    const body = e.body as Kept;
    const by = e.author?.name ?? '';
    const when = e.happenedAt.toISOString();
    if (body.note.what === 'opened') {
      const { from, said, symptoms } = body.note;
      found.set(body.trouble, {
        id: body.trouble,
        at: when,
        by,
        from,
        said,
        notes: [{ id, at: when, note: { what: 'seen', symptoms } }],
      });
    } else found.get(body.trouble)?.notes.push({ id, at: when, note: body.note });
  }
  return [...found.values()];
}

/** Every search of a setup. */
export async function readTroubles(setupId: string): Promise<Troubles> {
  await readSetup(setupId);
  return { troubles: await troublesOf(setupId) };
}

const isClosed = (t: TroubleRow): boolean => t.notes.some((n) => n.note.what === 'closed');

/** Begin a search. One that is still open on this setup is closed as unsolved first: one chain is searched once at a time. */
export function openTrouble(
  s: Services,
  setupId: string,
  b: z.output<typeof troubleBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, b, 'trouble', actor, async (w) => {
    if ((await troublesOf(setupId)).some((t) => !isClosed(t)))
      throw new HttpProblem(409, 'A search is already open', {
        detail: 'Close the open search of this setup first.',
      });
    const { symptoms, from, said } = b;
    await add(w, {
      id: b.id,
      kind: 'trouble',
      body: { trouble: b.id, note: { what: 'opened', symptoms, from, said } },
    });
    for (const a of b.answers) {
      const note = { what: 'test', test: a.test, says: a.says, by: 'reading', words: '' };
      await add(w, { id: a.id, kind: 'trouble', body: { trouble: b.id, note } });
    }
  });
}

async function logged(w: Work, t: TroubleRow, b: z.output<typeof troubleNoteBody>): Promise<void> {
  if (!b.log || b.note.what !== 'closed') return;
  const seen = t.notes.flatMap((n) => (n.note.what === 'seen' ? n.note.symptoms : []));
  const helped = t.notes.flatMap((n) =>
    n.note.what === 'fix' && ['solved', 'better'].includes(n.note.result) ? [n.note.cause] : [],
  );
  const fixes = [...new Set([...helped, ...(b.note.cause ? [b.note.cause] : [])])];
  const body = {
    id: b.log.id,
    outcome: b.log.outcome,
    note: b.note.words,
    order: null,
    corrects: null,
    provenance: 'own' as const,
    confidence: 1,
    happenedOn: w.happenedAt.toISOString().slice(0, 10),
    versions: entryVersions(w.chain.installed),
    symptoms: [...new Set(seen)].map((x) => SYMPTOM_WORDS[x].toLowerCase()),
    fixes: fixes.map((c) => CAUSE_WORDS[c].what.toLowerCase()),
  };
  await storeOutcome(w.setupId, body, w.chain, { origin: 'own', at: w.at, by: w.by }, 'log/');
}

/** Take the last note of an open search back; its beginning stays. */
export function undoNote(
  s: Services,
  setupId: string,
  troubleId: string,
  id: string,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, { id }, 'struck', actor, async (w) => {
    const t = (await troublesOf(setupId)).find((x) => x.id === troubleId);
    if (!t) throw notFound('search of this setup');
    const last = t.notes[t.notes.length - 1];
    if (isClosed(t) || t.notes.length < 2 || !last)
      throw new HttpProblem(409, 'Nothing to take back', {
        detail: 'The search is closed, or only its beginning is left.',
      });
    await add(w, {
      id,
      kind: 'struck',
      body: { reason: 'deleted at the search' },
      corrects: last.id,
    });
  });
}

/** One more note: what is seen, a test, a fix, or the end. */
export function noteTrouble(
  s: Services,
  setupId: string,
  troubleId: string,
  b: z.output<typeof troubleNoteBody>,
  actor: Actor,
): Promise<boolean> {
  return once(s, setupId, b, 'trouble', actor, async (w) => {
    const t = (await troublesOf(setupId)).find((x) => x.id === troubleId);
    if (!t) throw notFound('search of this setup');
    if (isClosed(t))
      throw new HttpProblem(409, 'This search is closed', { detail: 'Begin another to go on.' });
    await add(w, { id: b.id, kind: 'trouble', body: { trouble: troubleId, note: b.note } });
    await logged(w, t, b);
    if (b.retire) await becomes(w, 'retired');
  });
}
