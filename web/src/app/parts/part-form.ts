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
import { isAsked, optionsOf, type AnySpec, type AttrMeta, type PartKind } from '@ruddy/core/schema';
import { AttrField } from './attr-field';
import { dropRuledOut, formOf, newSocket, readForm, type Errors, type FieldGroup, type PartFormModel } from './form-model';

let forms = 0;

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
  readonly saved = output<AnySpec>();
  readonly touched = output();

  readonly id = `pf${++forms}`;
  readonly model = signal<PartFormModel | null>(null);
  readonly errors = signal<Errors>(new Map());
  readonly tried = signal(false);
  /** Counts edits: which fields are asked hangs on what others hold. */
  readonly edits = signal(0);
  readonly all = computed(() => new Map([...this.refused(), ...this.errors()]));
  readonly first = computed(() => [...this.all().values()][0] ?? null);

  constructor() {
    effect(() => {
      const [kind, spec] = [this.kind(), this.spec()];
      untracked(() => {
        const model = formOf(kind, spec);
        if (kind === 'host' && model.sockets.length === 0) model.sockets.push(newSocket('left'));
        this.model.set(model);
        this.errors.set(new Map());
        this.tried.set(false);
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
    const key = ['left', 'right', 'back', 'front', 'top'].find((k) => !used.has(k)) ?? `port-${m.sockets.length + 1}`;
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
    if (spec) this.saved.emit(spec);
    // The errors must be on the page before the first of them can be focused.
    else afterNextRender(() => this.#focusFirst(), { injector: this.#injector });
  }

  #edited(): void {
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
