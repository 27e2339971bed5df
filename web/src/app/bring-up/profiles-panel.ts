import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { type Docked, dockedSchema } from '@ruddy/core/setups';
import { SetupEditor } from '../setups/setup-editor';
import { Choice } from '../platform/shared/choice';
import { readNumber } from '../platform/shared/format';

type State = 'docked' | 'undocked';
type Key = Exclude<keyof Docked['docked'], never>;

const ROWS: readonly { key: Key; label: string; unit: string; number: boolean }[] = [
  { key: 'powerMode', label: 'Power mode', unit: '', number: false },
  { key: 'sustainedW', label: 'Sustained power', unit: 'W', number: true },
  { key: 'minutesW', label: 'Two-minute power', unit: 'W', number: true },
  { key: 'peakW', label: 'Peak power', unit: 'W', number: true },
  { key: 'tempLimitC', label: 'Temperature limit', unit: '°C', number: true },
  { key: 'sharedGB', label: 'Shared memory', unit: 'GB', number: true },
  { key: 'resolution', label: 'Resolution', unit: '', number: false },
  { key: 'scalingPercent', label: 'Scaling', unit: '%', number: true },
  { key: 'note', label: 'Note', unit: '', number: false },
];
const ON_OFF = [
  { value: 'on', label: 'On' },
  { value: 'off', label: 'Off' },
];

/** How the host is set docked and undocked, side by side, so that what comes back wrong is put right quickly. */
@Component({
  selector: 'rb-profiles-panel',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (docked(); as d) {
      <table class="list">
        <thead>
          <tr>
            <th scope="col">Host</th>
            <th scope="col">docked</th>
            <th scope="col">undocked</th>
          </tr>
        </thead>
        <tbody>
          @for (r of rows; track r.key) {
            <tr>
              <th scope="row">{{ r.label }}{{ r.unit ? ', ' + r.unit : '' }}</th>
              @for (s of states; track s) {
                <td>
                  <input
                    #box
                    [attr.aria-label]="r.label + ' ' + s"
                    [attr.inputmode]="r.number ? 'decimal' : null"
                    [attr.aria-invalid]="problems()[s + r.key] ? true : null"
                    maxlength="300"
                    autocomplete="off"
                    placeholder="not noted"
                    [value]="shown(d, s, r.key)"
                    (change)="set(s, r.key, r.number, box.value)"
                  />
                </td>
              }
            </tr>
          }
          <tr>
            <th scope="row">Internal graphics</th>
            <td>
              <rb-choice
                label="Internal graphics docked"
                [options]="onOff"
                [value]="inside()"
                (chosen)="setInside($event)"
              />
            </td>
            <td>
              <rb-choice
                label="Internal graphics undocked"
                [options]="onOff"
                [value]="d.undocked.internalGraphics"
                (chosen)="setUndockedInside($event)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      @if (problem(); as why) {
        <p class="problem" role="alert">Not saved: {{ why }}</p>
      }
    }
  `,
  styles: `
    td {
      min-width: 88px;
    }
    td input {
      width: 100%;
    }
    .list td,
    .list th {
      padding: 2px 4px;
    }
  `,
})
export class ProfilesPanel {
  readonly #editor = inject(SetupEditor);
  readonly rows = ROWS;
  readonly states = ['docked', 'undocked'] as const;
  readonly onOff = ON_OFF;
  /** What was typed and cannot be kept, by place. */
  readonly problems = signal<Readonly<Record<string, { typed: string; why: string }>>>({});
  readonly docked = computed(() => this.#editor.fields()?.docked ?? null);
  readonly inside = computed(() => {
    const v = this.#editor.fields()?.settings.internalGraphics;
    return typeof v === 'string' ? v : null;
  });
  readonly problem = computed(() => Object.values(this.problems())[0]?.why ?? null);

  shown(d: Docked, s: State, key: Key): string {
    return this.problems()[s + key]?.typed ?? String(d[s][key] ?? '');
  }

  set(s: State, key: Key, number: boolean, text: string): void {
    const d = this.docked();
    if (!d) return;
    const read = number ? readNumber(text) : ({ ok: true, value: text } as const);
    const next = read.ok
      ? dockedSchema.safeParse({ ...d, [s]: { ...d[s], [key]: read.value } })
      : null;
    const why = !read.ok ? read.why : (next?.error?.issues[0]?.message ?? null);
    const { [s + key]: old, ...rest } = this.problems();
    void old;
    this.problems.set(why === null ? rest : { ...rest, [s + key]: { typed: text, why } });
    if (next?.success) this.#editor.change({ docked: next.data });
  }

  setInside(value: string | null): void {
    const f = this.#editor.fields();
    if (f)
      this.#editor.change({
        settings: { ...f.settings, internalGraphics: value as 'on' | 'off' | null },
      });
  }

  setUndockedInside(value: string | null): void {
    const d = this.docked();
    if (d)
      this.#editor.change({
        docked: {
          ...d,
          undocked: { ...d.undocked, internalGraphics: value as 'on' | 'off' | null },
        },
      });
  }
}
