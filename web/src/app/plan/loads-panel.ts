import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { attributesOf, isAsked, LOAD_KINDS, loadSchema, type AttrMeta, type Load } from '@ruddy/core/schema';
import { SetupEditor } from '../data/setup-editor';
import { numText } from '../parts/part-facts';
import { readNumber } from '../shared/format';

const FIELDS = attributesOf(loadSchema).filter(([key]) => key !== 'kind');

/** What a fresh load of each kind usually is; from memory of the trade, to be changed by whoever measured. */
const USUAL: Record<Load['kind'], Partial<Load>> = {
  hub: { downGbps: null, upGbps: null },
  lan: { downGbps: 1, upGbps: 1 },
  drive: { downGbps: null, upGbps: null },
  video: { downGbps: 17.28, upGbps: 0 },
};

/** What else hangs on the dock and shares the link while it is in use, and the dock's firmware. */
@Component({
  selector: 'rb-loads-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field">
      <label for="dock-firmware">Dock firmware installed</label>
      <input
        #firmware
        id="dock-firmware"
        maxlength="60"
        autocomplete="off"
        placeholder="not known"
        [value]="installed()"
        (change)="setFirmware(firmware.value)"
      />
    </div>
    <details [open]="loads().length > 0">
      <summary>Also on the dock: {{ loads().length === 0 ? 'nothing' : words() }}</summary>
      @for (l of loads(); track $index; let i = $index) {
        <fieldset>
          <legend>{{ kinds[l.kind] }}</legend>
          @for (f of fields; track f[0]) {
            @if (asked(f[1], l)) {
              <span class="one">
                <label [attr.for]="'load-' + i + '-' + f[0]">{{ f[1].label }}{{ f[1].unit ? ', ' + f[1].unit : '' }}</label>
                @if (f[1].input === 'number') {
                  <input
                    #num
                    [id]="'load-' + i + '-' + f[0]"
                    inputmode="decimal"
                    placeholder="not known"
                    [value]="shown(l, f[0])"
                    [attr.aria-invalid]="problem()?.place === i + '/' + f[0]"
                    (change)="setNumber(i, f[0], num.value)"
                  />
                } @else {
                  <select #pick [id]="'load-' + i + '-' + f[0]" (change)="setChoice(i, f[0], pick.value)">
                    <option value="" [selected]="shown(l, f[0]) === ''">not sure</option>
                    @for (o of f[1].options ?? []; track o.value) {
                      <option [value]="o.value" [selected]="o.value === shown(l, f[0])">{{ o.label }}</option>
                    }
                  </select>
                }
              </span>
            }
          }
          @if (l.kind === 'video') {
            <p class="hint">Whole trained rate: 8.64 for HBR, 17.28 for HBR2, 25.92 for HBR3, with four lanes.</p>
          }
          <button type="button" class="link" (click)="remove(i)" [attr.aria-label]="'Take off ' + kinds[l.kind]">
            Take it off
          </button>
        </fieldset>
      }
      @if (problem(); as p) {
        <p class="problem" role="alert">Not changed. {{ p.why }}</p>
      }
      <div class="add">
        @for (k of all; track k[0]) {
          <button mat-button type="button" [disabled]="loads().length >= 16" (click)="add(k[0])">Add {{ k[1] }}</button>
        }
      </div>
    </details>
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
  readonly installed = computed(() => this.#editor.fields()?.installed.dockFirmware ?? '');
  readonly words = computed(() =>
    this.loads()
      .map((l) => LOAD_KINDS[l.kind])
      .join(', '),
  );

  asked(meta: AttrMeta, load: Load): boolean {
    return isAsked(meta, load);
  }

  shown(load: Load, key: string): string {
    const value = load[key as keyof Load];
    if (value === null) return '';
    return typeof value === 'string' ? value : typeof value === 'number' ? String(value) : 'lo' in value ? numText(value) : '';
  }

  add(kind: Load['kind']): void {
    this.#store([...this.loads(), loadSchema.parse({ kind, ...USUAL[kind] })]);
  }

  remove(index: number): void {
    this.#store(this.loads().filter((_, i) => i !== index));
  }

  setFirmware(version: string): void {
    this.#editor.change({ installed: { dockFirmware: version.trim().slice(0, 60) } });
  }

  setChoice(index: number, key: string, value: string): void {
    this.#change(index, key, value === '' ? null : value);
  }

  setNumber(index: number, key: string, text: string): void {
    const read = readNumber(text);
    if (read.ok) this.#change(index, key, read.value);
    else this.problem.set({ place: `${index}/${key}`, why: read.why });
  }

  #change(index: number, key: string, value: unknown): void {
    const next = this.loads().map((l, i) => (i === index ? { ...l, [key]: value } : l));
    const parsed = loadSchema.safeParse(next[index]);
    if (parsed.success) this.#store(next);
    else this.problem.set({ place: `${index}/${key}`, why: parsed.error.issues[0]?.message ?? 'not a rate' });
  }

  #store(loads: Load[]): void {
    this.problem.set(null);
    this.#editor.change({ loads });
  }
}
