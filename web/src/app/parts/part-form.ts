import {
  afterNextRender,
  Injector,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
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
import { AttrField } from './attr-field';
import {
  dropRuledOut,
  formOf,
  newSocket,
  readForm,
  type Errors,
  type FieldGroup,
  type PartFormModel,
} from './form-model';

let forms = 0;

/** A part as its form gives it: its values, and where they came from. */
export interface FormPart {
  spec: AnySpec;
  sources: SourceMap;
}

const at = (spec: unknown, place: string): unknown =>
  place.split('/').reduce<unknown>((v, key) => {
    if (Array.isArray(v)) return v.find((x: { key?: string }) => x.key === key) as unknown;
    return (v as Record<string, unknown> | undefined)?.[key];
  }, spec);

/** The form of any part, made from its schema: labels, units, limits, help and "not sure" come from there. */
@Component({
  selector: 'rb-part-form',
  imports: [AttrField, MatButtonModule, MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-form.html',
  styleUrl: './part-form.scss',
})
export class PartForm {
  readonly #injector = inject(Injector);
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly kind = input.required<PartKind>();
  readonly spec = input.required<Partial<AnySpec>>();
  readonly action = input('Save');
  /** Refusals of the server, by place, shown beside the field. */
  readonly refused = input<Errors>(new Map());
  readonly sources = input<SourceMap>({});
  readonly saved = output<FormPart>();
  readonly touched = output();

  /** What a part is called needs no source. */
  readonly named = ['maker', 'model', 'variant'];
  readonly id = `pf${++forms}`;
  readonly model = signal<PartFormModel | null>(null);
  readonly errors = signal<Errors>(new Map());
  readonly tried = signal(false);
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
    if (!m) return [];
    const by = new Map(m.fields);
    return groupsOf(
      m.kind,
      m.fields.map(([k]) => k),
    ).map((g) => ({
      title: g.title,
      fields: g.keys.flatMap((k): [string, AttrMeta][] => {
        const meta = by.get(k);
        return meta ? [[k, meta]] : [];
      }),
    }));
  });
  readonly all = computed(() => new Map([...this.refused(), ...this.errors()]));
  readonly first = computed(() => [...this.all().values()][0] ?? null);

  constructor() {
    effect(() => {
      const kind = this.kind();
      const spec = this.spec();
      untracked(() => {
        const model = formOf(kind, spec);
        if (kind === 'host' && model.sockets.length === 0) model.sockets.push(newSocket('left'));
        this.model.set(model);
        this.errors.set(new Map());
        this.tried.set(false);
        this.asking.set(false);
        this.notes.set(this.sources());
        this.sourced.set(Object.values(this.sources()).some((s) => s.from !== null));
        model.group.valueChanges.subscribe(() => this.#edited());
        model.sockets.valueChanges.subscribe(() => this.#edited());
      });
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

  asked(meta: AttrMeta, group: FieldGroup): boolean {
    this.edits();
    return isAsked(meta, group.value);
  }

  options(meta: AttrMeta, group: FieldGroup): NonNullable<AttrMeta['options']> {
    this.edits();
    return optionsOf(meta, group.value);
  }

  addSocket(): void {
    const m = this.model();
    if (!m) return;
    const used = new Set(m.sockets.controls.map((g) => g.controls['key']?.value));
    const key =
      ['left', 'right', 'back', 'front', 'top'].find((k) => !used.has(k)) ??
      `port-${m.sockets.length + 1}`;
    m.sockets.push(newSocket(key));
    this.model.set({ ...m });
  }

  removeSocket(index: number): void {
    const m = this.model();
    if (!m) return;
    m.sockets.removeAt(index);
    this.model.set({ ...m });
  }

  submit(event: Event): void {
    event.preventDefault();
    const m = this.model();
    if (!m) return;
    const { spec, errors } = readForm(m);
    this.tried.set(true);
    this.errors.set(errors);
    if (spec && this.questions().size > 0) this.asking.set(true);
    else if (spec) this.#emit(spec);
    // The errors must be on the page before the first of them can be focused.
    else afterNextRender(() => this.#focusFirst(), { injector: this.#injector });
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

  groupAsked(fields: readonly [string, AttrMeta][], group: FieldGroup): boolean {
    return fields.some(([, meta]) => this.asked(meta, group));
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
    if (m) {
      dropRuledOut(m.fields, m.group);
      for (const g of m.sockets.controls) dropRuledOut(m.socketFields, g);
    }
    this.edits.update((n) => n + 1);
    if (m && this.tried()) this.errors.set(readForm(m).errors);
  }

  #focusFirst(): void {
    const el = this.#host.nativeElement.querySelector<HTMLElement>('[aria-invalid=true]');
    el?.focus();
  }
}
