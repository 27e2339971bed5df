import type { Load } from '../chain';
import { type Installed, NO_SETTINGS, NOTHING_INSTALLED, type Settings, type Use } from '../parts';
import type { CostSaid } from './contract/cost';
import { NO_COST_SAID } from './defaults';
import { type Docked, NO_DOCKED } from './docked';
import type { Pin } from './pins';

/** A field of a setup beside its name, state and slots: each is stored, sent and replaced as a whole. */
export interface SetupFieldDef<T> {
  /** What people call it, where two edits are held against each other. */
  readonly label: string;
  /** Its value where nothing was entered, and in what an older version stored. */
  readonly empty: T;
  /** The evaluation reads it, so that a change of it is judged anew. */
  readonly evaluated: boolean;
}

function field<T>(label: string, empty: T, evaluated = false): SetupFieldDef<T> {
  return { label, empty, evaluated };
}

/**
 * The fields of a setup, once. Request, answer, patch, stored JSON, snapshot of a revision, clone, bundle, undo and the list of conflicts
 * are made from this list; the schema of each stands in `contract/setups.ts`, which does not compile without it.
 */
export const SETUP_FIELDS = {
  loads: field<Load[]>('What else hangs on the dock', [], true),
  installed: field<Installed>('Versions installed', NOTHING_INSTALLED, true),
  settings: field<Settings>('Docked settings', NO_SETTINGS, true),
  docked: field<Docked>('Profiles, programs, buttons', NO_DOCKED),
  pins: field<Pin[]>('Pinned versions', []),
  uses: field<Use[]>('Uses', [], true),
  present: field<string>('Present graphics', ''),
  cost: field<CostSaid>('Cost', NO_COST_SAID),
  notes: field<string>('Notes', ''),
};
export type SetupField = keyof typeof SETUP_FIELDS;
export type SetupFields = { [K in SetupField]: (typeof SETUP_FIELDS)[K]['empty'] };
export const SETUP_FIELD_NAMES = Object.keys(SETUP_FIELDS) as SetupField[];
export const EVALUATED_FIELDS = SETUP_FIELD_NAMES.filter((name) => SETUP_FIELDS[name].evaluated);

/**
 * The fields of something that may have more or fewer of them.
 * @param given a setup, a patch or stored details; not modified
 * @param absent what stands for a field that is not given; left out, its empty value
 * @returns every field once, nothing else
 * @example setupFields({ notes: 'kept' }).pins // => []
 */
export function setupFields(
  given: Partial<SetupFields>,
  absent: Partial<SetupFields> = {},
): SetupFields {
  return Object.fromEntries(
    SETUP_FIELD_NAMES.map((name) => [
      name,
      given[name] ?? absent[name] ?? SETUP_FIELDS[name].empty,
    ]),
  ) as unknown as SetupFields;
}
