import { originAfterChange } from '../platform/db/columns';
import {
  type Installed,
  type Settings,
  settingsSchema,
  type SoftwareRole,
} from '@ruddy/core/parts';
import type { SetupModel } from './models/setup';
import { invalid } from '../platform/http/problem';
import { addEvent } from './events';
import { newId } from '../platform/db/ids';
import { keepRevision, type StoredSetup } from './setup-store';

type Stored = StoredSetup & { row: SetupModel };
interface When {
  at: Date;
  happenedAt: Date;
  by: string;
}
export interface Noted {
  what: string;
  from: string;
  to: string;
}

/** A version that was met: a fact of the record, with what it was before. */
export async function noteVersion(
  setupId: string,
  change: { id: string; role: SoftwareRole; from: string; to: string; attempt?: string },
  when: When,
): Promise<void> {
  const { id, role, from, to, attempt } = change;
  await addEvent({
    id,
    setupId,
    kind: 'version',
    body: { what: role, from, to, ...(attempt && { attempt }) },
    happenedAt: when.happenedAt,
    recordedAt: when.at,
    origin: 'own',
    by: when.by,
  });
}

function wholeSettings(before: Settings, change: Partial<Record<string, string | null>>): Settings {
  const r = settingsSchema.safeParse({ ...before, ...change });
  if (r.success) return r.data;
  const issue = r.error.issues[0];
  throw invalid(`settings/${issue?.path.join('/') ?? ''}`, issue?.message ?? 'not a setting');
}

/**
 * Take over versions and settings that were met at a step: the setup changes, changed versions become facts, and what was met is given
 * back with before and after. Only what is named is touched, so that two people at one bench do not undo each other.
 */
export async function takeOver(
  { row, setup }: Stored,
  met: {
    installed: Partial<Installed>;
    settings: Partial<Record<string, string | null>>;
    attempt: string;
  },
  when: When,
): Promise<Noted[]> {
  const installed = { ...setup.installed, ...met.installed };
  const settings = wholeSettings(setup.settings, met.settings);
  const versions = (Object.keys(met.installed) as SoftwareRole[]).map((what) => ({
    what,
    from: setup.installed[what],
    to: installed[what],
  }));
  const word = (v: Settings[keyof Settings]) => (typeof v === 'string' ? v : '');
  const chosen = (Object.keys(met.settings) as (keyof Settings)[]).map((what) => ({
    what,
    from: word(setup.settings[what]),
    to: word(settings[what]),
  }));
  const changed = [...versions, ...chosen].some((n) => n.from !== n.to);
  if (changed) {
    const origin = originAfterChange(row.origin);
    const details = { ...row.details, installed, settings };
    await row.update({ details, origin, rev: row.rev + 1, savedAt: when.at });
    await keepRevision(row.id, null, when.by, when.at);
  }
  for (const { what, from, to } of versions)
    if (from !== to)
      await noteVersion(row.id, { id: newId(), role: what, from, to, attempt: met.attempt }, when);
  return [...versions, ...chosen].filter((n) => n.to !== '' || n.from !== '');
}
