import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type Load, loadSchema } from '@ruddy/core/chain';
import { attributesOf, LOAD_KINDS } from '@ruddy/core/parts';
import { SetupEditor } from '../setups/setup-editor';
import { QuickAttrs, type QuickChange } from '../parts/quick-attrs';
import { Fold } from '../platform/kit/fold';

const FIELDS = attributesOf(loadSchema).filter(([key]) => key !== 'kind');

/** What a fresh load of each kind usually is; from memory of the trade, to be changed by whoever measured. */
const USUAL: Record<Load['kind'], Partial<Load>> = {
  hub: { downGbps: null, upGbps: null },
  lan: { downGbps: 1, upGbps: 1 },
  drive: { downGbps: null, upGbps: null },
  video: { downGbps: 17.28, upGbps: 0 },
};

/** What else hangs on the dock and shares the link while it is in use. */
@Component({
  selector: 'rb-loads-panel',
  imports: [Fold, MatButtonModule, QuickAttrs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold
      [inner]="true"
      [open]="loads().length > 0"
      name="Also on the dock: {{ loads().length === 0 ? 'nothing' : words() }}"
    >
      @for (l of loads(); track $index; let i = $index) {
        <section [attr.aria-label]="kinds[l.kind]">
          <h4>{{ kinds[l.kind] }}</h4>
          <rb-quick-attrs [fields]="fields" [values]="l" (changed)="change(i, $event)" />
          @if (l.kind === 'video') {
            <p class="hint">
              The picture decides: pixel clock in MHz times bits a pixel, over 1000; 12.8 for 3840 ×
              2160 at 60 Hz with 24 bits. The trained rate is its most: 8.64 for HBR, 17.28 for
              HBR2, 25.92 for HBR3, with four lanes.
            </p>
          }
          <button
            mat-button
            type="button"
            (click)="remove(i)"
            [attr.aria-label]="'Remove ' + kinds[l.kind]"
          >
            Remove
          </button>
        </section>
      }
      @if (problem(); as p) {
        <p class="problem" role="alert">Not changed. {{ p.why }}</p>
      }
      <div class="add">
        @for (k of all; track k[0]) {
          <button mat-button type="button" [disabled]="loads().length >= 16" (click)="add(k[0])">
            Add {{ k[1] }}
          </button>
        }
      </div>
    </rb-fold>
  `,
  styleUrl: './loads-panel.scss',
})
export class LoadsPanel {
  readonly #editor = inject(SetupEditor);
  readonly kinds = LOAD_KINDS;
  readonly all = Object.entries(LOAD_KINDS) as [Load['kind'], string][];
  readonly fields = FIELDS;
  readonly problem = signal<{ place: string; why: string } | null>(null);
  readonly loads = computed(() => this.#editor.fields()?.loads ?? []);
  readonly words = computed(() =>
    this.loads()
      .map((l) => LOAD_KINDS[l.kind])
      .join(', '),
  );

  add(kind: Load['kind']): void {
    this.#store([...this.loads(), loadSchema.parse({ kind, ...USUAL[kind] })]);
  }

  remove(index: number): void {
    this.#store(this.loads().filter((_, i) => i !== index));
  }

  change(index: number, { key, value }: QuickChange): void {
    const next = this.loads().map((l, i) => (i === index ? { ...l, [key]: value } : l));
    const parsed = loadSchema.safeParse(next[index]);
    if (parsed.success) this.#store(next);
    else
      this.problem.set({
        place: `${index}/${key}`,
        why: parsed.error.issues[0]?.message ?? 'not a rate',
      });
  }

  #store(loads: Load[]): void {
    this.problem.set(null);
    this.#editor.change({ loads });
  }
}
