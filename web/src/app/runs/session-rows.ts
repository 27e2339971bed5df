import { computed, inject, Injectable, signal } from '@angular/core';
import equal from 'fast-deep-equal';
import {
  type KnownNames,
  NO_RUN_SETTINGS,
  type ProposedSettings,
  proposeSettings,
  type RunSettings,
  SCREEN_PATHS,
} from '@ruddy/core/runs';
import { pathOf } from '../platform/kit/file-drop';
import { type FileRow, RunFiles, runsOf } from './run-files';

/** What the table of a session says of each file. */
export interface SessionValues {
  readonly title: string;
  readonly resolution: string;
  readonly preset: string;
  readonly setupId: string;
  readonly screenPath: RunSettings['screenPath'];
  readonly powerMode: string;
}
export type SessionField = keyof SessionValues;
export const SESSION_FIELDS: readonly SessionField[] = [
  'title',
  'resolution',
  'preset',
  'setupId',
  'screenPath',
  'powerMode',
];

/** A setup a run can have been made on: its name, and the words that tell it apart. */
type SessionSetup = KnownNames['setups'][number] & { readonly name: string };

/** A file of a session: its values, and where each comes from. */
export interface SessionRow {
  readonly file: FileRow;
  readonly path: string;
  readonly values: SessionValues;
  /** Fields whose value was read from the name of the file and nobody has said. */
  readonly proposed: ReadonlySet<SessionField>;
  /** Which of how many alike. */
  readonly repeat: string;
}

/** What is known here, to meet words of file names with. */
interface Known extends Omit<KnownNames, 'setups'> {
  readonly setups: readonly SessionSetup[];
}

const NOTHING: Known = {
  titles: [],
  presets: [],
  powerModes: [],
  setups: [],
  programs: new Map(),
};

const natural = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true });
const isSaid = (v: unknown) => v !== undefined && v !== null && v !== '';

/** The folders that all files lie in, with the slash behind them. */
function sharedFolder(paths: readonly string[]): string {
  const [first = '', ...others] = paths;
  const folders = first.split('/').slice(0, -1);
  const until = folders.findIndex(
    (_, i) => !others.every((p) => p.startsWith(`${folders.slice(0, i + 1).join('/')}/`)),
  );
  const shared = others.length === 0 ? [] : folders.slice(0, until < 0 ? undefined : until);
  return shared.map((f) => `${f}/`).join('');
}

/** Rows of the session table: what file names propose, what was said for them, and which are chosen. Nothing is stored here. */
@Injectable()
export class SessionRows {
  readonly #files = inject(RunFiles);
  readonly known = signal<Known>(NOTHING);
  /** Setup of the page, and what each setup tells of its runs. */
  readonly setupId = signal('');
  readonly presets = signal<ReadonlyMap<string, RunSettings>>(new Map());
  /** Values that somebody said, by file. */
  readonly said = signal<ReadonlyMap<string, Partial<SessionValues>>>(new Map());
  /** Values of the cell of a planned session, by file. */
  readonly planned = signal<ReadonlyMap<string, Partial<SessionValues>>>(new Map());
  readonly left = signal<ReadonlySet<string>>(new Set());
  /** What was said last, and the files that were there: it holds for those that come after, where nothing else is known of them. */
  readonly #before = signal<{
    readonly values: Partial<SessionValues>;
    readonly files: ReadonlySet<string>;
  }>({ values: {}, files: new Set() });

  /** Files whose run can be described: refused ones are listed elsewhere. */
  readonly listed = computed(() =>
    this.#files
      .rows()
      .filter((r) => r.state !== 'refused' && r.state !== 'stopped')
      .sort((a, b) => natural(pathOf(a.file), pathOf(b.file))),
  );
  /** Names and programs of the files: while they are read nothing else of them is proposed anew. */
  readonly #named = computed(
    () =>
      this.listed().map((f) => ({
        id: f.id,
        path: pathOf(f.file),
        program: f.read?.streams[0]?.program ?? '',
      })),
    { equal },
  );
  readonly #proposals = computed((): ReadonlyMap<string, ProposedSettings> => {
    const named = this.#named();
    const list = proposeSettings(named, this.known());
    return new Map(named.map((f, i) => [f.id, list[i] as ProposedSettings]));
  });
  readonly rows = computed((): readonly SessionRow[] => {
    const shared = sharedFolder(this.#named().map((n) => n.path));
    const rows = this.listed().map((file) => this.#row(file, shared.length));
    const alike = new Map<string, SessionRow[]>();
    for (const r of rows.filter((x) => runsOf(x.file).length > 0)) {
      const key = JSON.stringify(r.values);
      alike.set(key, [...(alike.get(key) ?? []), r]);
    }
    return rows.map((r) => {
      const same = alike.get(JSON.stringify(r.values)) ?? [];
      const at = same.indexOf(r);
      return { ...r, repeat: at < 0 ? '' : `${at + 1} of ${same.length}` };
    });
  });
  /** Rows that a change is for: all, but those that were taken out of the choice. */
  readonly chosen = computed(() => this.rows().filter((r) => !this.left().has(r.file.id)));

  #row(file: FileRow, sharedLetters: number): SessionRow {
    const said = this.said().get(file.id) ?? {};
    const planned = this.planned().get(file.id) ?? {};
    const proposal = this.#proposals().get(file.id);
    const setupId = said.setupId ?? (proposal?.setupId || this.setupId());
    const usual = this.presets().get(setupId) ?? NO_RUN_SETTINGS;
    const before = this.#before().files.has(file.id) ? {} : this.#before().values;
    const value = <F extends SessionField>(f: F): SessionValues[F] => {
      const sources = [
        planned[f],
        proposal?.[f],
        before[f],
        f in usual ? usual[f as never] : undefined,
      ];
      const none = f === 'screenPath' ? null : '';
      return (f in said ? said[f] : (sources.find(isSaid) ?? none)) as SessionValues[F];
    };
    const proposed = SESSION_FIELDS.filter(
      (f) => !(f in said) && !isSaid(planned[f]) && isSaid(proposal?.[f]),
    );
    return {
      file,
      path: pathOf(file.file).slice(sharedLetters),
      values: {
        title: value('title'),
        resolution: value('resolution'),
        preset: value('preset'),
        setupId,
        screenPath: value('screenPath'),
        powerMode: value('powerMode'),
      },
      proposed: new Set(proposed),
      repeat: '',
    };
  }

  /** Says a value of every chosen row. */
  say<F extends SessionField>(field: F, value: SessionValues[F]): void {
    this.#put(this.chosen().map((r) => [r.file.id, { [field]: value }]));
    this.#before.update(({ values, files }) => ({
      values: field === 'setupId' ? values : { ...values, [field]: value },
      files: new Set([...files, ...this.rows().map((r) => r.file.id)]),
    }));
  }

  /** Gives every chosen row the value of the first of them. */
  fillDown(field: SessionField): void {
    const first = this.chosen()[0];
    if (first) this.say(field, first.values[field]);
  }

  /** Sets the chosen rows as another run was set; what the name of a file says stays. */
  sayAs(values: Partial<SessionValues>): void {
    this.#put(
      this.chosen().map((r) => {
        const free = SESSION_FIELDS.filter((f) => !r.proposed.has(f) && isSaid(values[f]));
        return [r.file.id, Object.fromEntries(free.map((f) => [f, values[f]]))];
      }),
    );
  }

  /** Takes up values that were kept, by the order of the files. */
  restore(ids: readonly string[], said: readonly Partial<SessionValues>[]): void {
    this.#put(ids.map((id, i) => [id, said[i] ?? {}]));
  }

  #put(changes: readonly (readonly [id: string, Partial<SessionValues>])[]): void {
    this.said.update((all) => {
      const next = new Map(all);
      for (const [id, change] of changes) next.set(id, { ...next.get(id), ...change });
      return next;
    });
  }

  /** Chooses these rows and no others. */
  choose(ids: ReadonlySet<string>): void {
    const others = this.rows().filter((r) => !ids.has(r.file.id));
    this.left.set(new Set(others.map((r) => r.file.id)));
  }

  /** Chooses the rows that have this value, and no others. */
  chooseAlike(field: SessionField, value: SessionValues[SessionField]): void {
    const alike = this.rows().filter((r) => r.values[field] === value);
    this.choose(new Set(alike.map((r) => r.file.id)));
  }

  /** The value that all chosen rows share; undefined where they differ. */
  shared<F extends SessionField>(field: F): SessionValues[F] | undefined {
    const values = this.chosen().map((r) => r.values[field]);
    return values.every((v) => v === values[0]) ? values[0] : undefined;
  }

  /** A value as the table shows it. */
  text(row: SessionRow, field: SessionField): string {
    const { setupId, screenPath } = row.values;
    if (field === 'setupId')
      return this.known().setups.find((s) => s.id === setupId)?.name ?? 'this setup';
    if (field === 'screenPath') return screenPath === null ? '' : SCREEN_PATHS[screenPath];
    return row.values[field] ?? '';
  }
}
