import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  output,
  signal,
  untracked,
  viewChildren,
} from '@angular/core';
import type { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import {
  type AnySpec,
  type AttrMeta,
  groupsOf,
  type HostSpec,
  isAsked,
  optionsOf,
  type PartKind,
  partQuestions,
  type SourceMap,
  type SourceNote,
} from '@ruddy/core/parts';
import { questionText } from '@ruddy/core/parts/text';
import { Field } from '../platform/kit/field';
import { Fold } from '../platform/kit/fold';
import { fieldOf, type FieldMeta } from '../platform/kit/meta';
import { readyToSend, refusedAt } from '../platform/kit/problems';
import {
  candidates,
  formOf,
  newSocket,
  readForm,
  settle,
  type Errors,
  type FieldGroup,
  type PartFormModel,
} from './form-model';
import { SourceFields, sourceWords } from './source-fields';

/** A part as its form gives it: its values, and where they came from. */
export interface FormPart {
  spec: AnySpec;
  sources: SourceMap;
}

/** One field as it is shown. */
interface Shown {
  /** Of the value in the part, as its source is kept by: `lengthMm`, `sockets/left/lanes`. */
  readonly place: string;
  readonly meta: FieldMeta;
  readonly control: FormControl;
}

const at = (spec: unknown, place: string): unknown =>
  place.split('/').reduce<unknown>((v, key) => {
    if (Array.isArray(v)) return v.find((x: { key?: string }) => x.key === key) as unknown;
    return (v as Record<string, unknown> | undefined)?.[key];
  }, spec);

/** The form of any part, made from its schema: labels, units, limits, help and "not sure" come from there. */
@Component({
  selector: 'rb-part-form',
  imports: [
    Field,
    Fold,
    MatButtonModule,
    MatCheckboxModule,
    MatIconModule,
    NgTemplateOutlet,
    SourceFields,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-form.html',
  styleUrl: './part-form.scss',
})
export class PartForm {
  readonly kind = input.required<PartKind>();
  readonly spec = input.required<Partial<AnySpec>>();
  readonly action = input('Save');
  /** Refusals of the server, by place, shown at the field. */
  readonly refused = input<Errors>(new Map());
  readonly sources = input<SourceMap>({});
  readonly saved = output<FormPart>();
  readonly touched = output();

  /** What a part is called needs no source. */
  readonly named = ['maker', 'model', 'variant'];
  readonly sourceWords = sourceWords;
  readonly folds = viewChildren(Fold);
  readonly model = signal<PartFormModel | null>(null);
  readonly tried = signal(false);
  /** What the server refused and no field shows. */
  readonly refusals = signal<string | null>(null);
  /** Counts edits: which fields are asked hangs on what others hold. */
  readonly edits = signal(0);
  readonly notes = signal<SourceMap>({});
  readonly sourced = signal(false);
  /** What is odd about the values as they stand, by place; what was asked before and kept is not asked again. */
  readonly questions = computed(() => {
    this.edits();
    const spec = this.read()?.spec;
    if (!spec) return new Map<string, string>();
    const open = partQuestions(this.kind(), spec).filter((q) => !this.#keptAsSaid(q.path, spec));
    return new Map(open.map((q) => [q.path, questionText(q)]));
  });
  /** Asked on storing: the person says that the values are as said, or mends them. */
  readonly asking = signal(false);
  readonly groups = computed(() => {
    const m = this.model();
    this.edits();
    if (!m) return [];
    const by = new Map(m.fields);
    return groupsOf(
      m.kind,
      m.fields.map(([k]) => k),
    )
      .map((g) => ({
        title: g.title,
        fields: this.#shown(
          g.keys.flatMap((k) => (by.has(k) ? [[k, by.get(k)!] as const] : [])),
          m.group,
          '',
        ),
      }))
      .filter((g) => g.fields.length > 0);
  });
  readonly ports = computed(() => {
    const m = this.model();
    this.edits();
    return (m?.sockets.controls ?? []).map((group) => {
      const key = String(group.controls['key']?.value ?? '');
      return { group, title: key, fields: this.#shown(m!.socketFields, group, `sockets/${key}/`) };
    });
  });
  /** Sentence above the form while it cannot be saved. */
  readonly line = computed(() => {
    this.edits();
    const m = this.model();
    const found = m && this.tried() ? [...readForm(m).errors.values()] : [];
    const first = this.refusals() ?? found[0];
    return first ? `${first}${found.length > 1 ? `; ${found.length - 1} more` : ''}` : null;
  });
  readonly #metas = new Map<string, FieldMeta>();

  constructor() {
    effect(() => {
      const kind = this.kind();
      const spec = this.spec();
      untracked(() => {
        const model = formOf(kind, spec);
        if (kind === 'host' && model.sockets.length === 0) model.sockets.push(newSocket('left'));
        this.model.set(model);
        this.tried.set(false);
        this.refusals.set(null);
        this.#metas.clear();
        this.asking.set(false);
        this.notes.set(this.sources());
        this.sourced.set(Object.values(this.sources()).some((s) => s.from !== null));
        model.group.valueChanges.subscribe(() => this.#edited());
      });
    });
    effect(() => {
      const refused = this.refused();
      const m = untracked(this.model);
      if (!m) return;
      const rest = [...refused].filter(([place, why]) => !refusedAt(m.group, place, why));
      this.refusals.set(rest.length > 0 ? rest.map(([, why]) => why).join('; ') : null);
      if (rest.length < refused.size) this.tried.set(true);
      this.edits.update((n) => n + 1);
    });
  }

  /** What the form holds now, good or not: an editor that closes asks for it. */
  read(): { spec: AnySpec | null; errors: Errors } | null {
    const m = this.model();
    return m && readForm(m);
  }

  /** The part as the form holds it, when every rule holds. */
  current(): FormPart | null {
    const spec = this.read()?.spec;
    return spec ? { spec, sources: this.notes() } : null;
  }

  addSocket(): void {
    const m = this.model();
    if (!m) return;
    const used = new Set(m.sockets.controls.map((g) => g.controls['key']?.value));
    const key =
      ['left', 'right', 'back', 'front', 'top'].find((k) => !used.has(k)) ??
      `port-${m.sockets.length + 1}`;
    m.sockets.push(newSocket(key));
    settle(m);
  }

  removeSocket(index: number): void {
    const m = this.model();
    if (!m) return;
    m.sockets.removeAt(index);
  }

  submit(form: HTMLElement): void {
    const m = this.model();
    if (!m) return;
    this.refusals.set(null);
    this.tried.set(true);
    const ready = readyToSend(m.group, form);
    this.edits.update((n) => n + 1);
    // A wrong field in a closed section could not take the focus.
    if (!ready) this.folds().forEach((f) => f.open.set(true));
    const { spec } = readForm(m);
    if (spec && this.questions().size > 0) this.asking.set(true);
    else if (spec) this.#emit(spec);
  }

  /** Keep the odd values as they were said; they are not asked about again until they change. */
  keepAsSaid(): void {
    const spec = this.read()?.spec;
    if (!spec) return;
    const none: SourceNote = { from: null, on: '', note: '', kept: true };
    const asked = [...this.questions().keys()].map(
      (path) => [path, { ...none, ...this.notes()[path], kept: true }] as const,
    );
    this.notes.update((n) => ({ ...n, ...Object.fromEntries(asked) }));
    this.asking.set(false);
    this.#emit(spec);
  }

  note(place: string, source: SourceNote | null): void {
    this.touched.emit();
    this.notes.update((n) => {
      const { [place]: _old, ...rest } = n;
      void _old;
      return source ? { ...rest, [place]: source } : rest;
    });
  }

  #shown(fields: readonly (readonly [string, AttrMeta])[], group: FieldGroup, at: string): Shown[] {
    const values = group.getRawValue() as Record<string, unknown>;
    return fields
      .filter(([, meta]) => isAsked(meta, values))
      .map(([key, meta]) => ({
        place: `${at}${key}`,
        meta: this.#metaOf(`${at}${key}`, meta, values, values[key]),
        control: group.controls[key] as FormControl,
      }));
  }

  /** Made once for each place and set of options: a new one would draw its field anew at every letter typed. */
  #metaOf(
    place: string,
    meta: AttrMeta,
    values: Record<string, unknown>,
    value: unknown,
  ): FieldMeta {
    const options = meta.input === 'choice' ? optionsOf(meta, values) : undefined;
    const among = candidates(value);
    const label = (v: string) => meta.options?.find((o) => o.value === v)?.label ?? v;
    const several =
      among.length > 1 ? [{ value: String(value), label: among.map(label).join(' or ') }] : [];
    const id = [place, ...(options ?? []).map((o) => o.value), ...among].join(' ');
    const known = this.#metas.get(id);
    if (known) return known;
    const made = { ...fieldOf(meta), ...(options ? { options: [...several, ...options] } : {}) };
    this.#metas.set(id, made);
    return made;
  }

  #keptAsSaid(path: string, spec: AnySpec): boolean {
    return (
      this.notes()[path]?.kept === true &&
      JSON.stringify(at(spec, path)) === JSON.stringify(at(this.spec(), path))
    );
  }

  /** Hand on the part; notes about sockets that are gone, and "kept as said" of values that changed, go. */
  #emit(spec: AnySpec): void {
    const keys = new Set((spec as Partial<HostSpec>).sockets?.map((s) => s.key));
    const asked = new Set(partQuestions(this.kind(), spec).map((q) => q.path));
    const notes = Object.entries(this.notes())
      .filter(([place]) => !place.startsWith('sockets/') || keys.has(place.split('/')[1] ?? ''))
      .map(([place, n]) => [place, { ...n, kept: n.kept && asked.has(place) }] as const)
      .filter(([, n]) => n.from !== null || n.kept);
    this.saved.emit({ spec, sources: Object.fromEntries(notes) });
  }

  #edited(): void {
    this.asking.set(false);
    this.touched.emit();
    const m = this.model();
    if (m) settle(m);
    this.edits.update((n) => n + 1);
  }
}
