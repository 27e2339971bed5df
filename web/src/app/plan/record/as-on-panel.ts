import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { chainNames } from '@ruddy/core/chain';
import { asOn, type Change } from '@ruddy/core/compatibility';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { SetupEditor } from '../../setups/setup-editor';
import { pluralize, day } from '../../platform/shared/format';
import { ServerClock } from '../../platform/shared/server-clock';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { Fold } from '../../platform/kit/fold';

const nameOf = (role: string) => SOFTWARE_NAMES[role as SoftwareRole]?.toLowerCase() ?? role;

/** Changes of parts and versions out of the record; what was taken back is left out. */
export function changesOf(events: readonly SetupEvent[]): Change[] {
  const struck = new Set(
    events.flatMap((e) => (e.kind === 'struck' && e.corrects ? [e.corrects] : [])),
  );
  return events.flatMap((e): Change[] => {
    if (struck.has(e.id)) return [];
    const at = e.happenedAt;
    if (e.kind === 'version')
      return [
        {
          at,
          what: nameOf(String(e.body['what'])),
          from: String(e.body['from'] ?? ''),
          to: String(e.body['to'] ?? ''),
        },
      ];
    if (e.kind !== 'parts') return [];
    const list = (e.body['changes'] ?? []) as { slot: string; from: string; to: string }[];
    return list.map(({ slot, from, to }) => ({ at, what: slot, from, to }));
  });
}

/** Parts and versions as they were on a day, beside those of now. */
@Component({
  selector: 'rb-as-on-panel',
  imports: [Field, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-field [meta]="onMeta" [value]="on()" (changed)="typed.set($event)" />
    <p role="status">{{ sentence() }}</p>
    @for (r of changed(); track r.what) {
      <p class="changed">
        <strong>{{ r.what }}</strong>: {{ r.then || 'nothing' }}; now {{ r.now || 'nothing'
        }}{{ r.changedAt ? ', since ' + day(r.changedAt.slice(0, 10)) : '' }}
      </p>
    }
    @if (same().length > 0) {
      <rb-fold [inner]="true" name="{{ same().length }} as today">
        @for (r of same(); track r.what) {
          <p>{{ r.what }}: {{ r.then || 'not known' }}</p>
        }
      </rb-fold>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    .changed {
      border-left: 4px solid var(--ink);
      padding: 2px 8px;
    }
  `,
})
export class AsOnPanel {
  readonly #editor = inject(SetupEditor);
  readonly #clock = inject(ServerClock);
  readonly events = input.required<readonly SetupEvent[]>();
  /** The day that is shown until a person chooses another. */
  readonly first = input<string | null>(null);
  readonly onMeta: FieldMeta = { label: 'Compare with', input: 'day' };
  readonly typed = signal<string | null>(null);
  readonly day = day;
  readonly today = computed(() => this.#clock.today());
  readonly on = computed(() => {
    const typed = this.typed();
    const oldest = this.events()[this.events().length - 1]?.happenedAt.slice(0, 10);
    return typed ?? this.first() ?? oldest ?? this.today();
  });
  readonly rows = computed(() => {
    const j = this.#editor.judgement();
    if (!j) return [];
    const versions = Object.entries(j.chain.installed).map(
      ([role, v]) => [nameOf(role), v] as const,
    );
    const now: Record<string, string> = { ...chainNames(j.chain), ...Object.fromEntries(versions) };
    return asOn(
      now,
      changesOf(this.events()).filter((c) => c.what in now),
      this.on(),
    );
  });
  readonly changed = computed(() => this.rows().filter((r) => r.then !== r.now));
  readonly same = computed(() => this.rows().filter((r) => r.then === r.now));
  readonly sentence = computed(() =>
    this.changed().length === 0
      ? `Nothing has changed since ${day(this.on())}.`
      : `${pluralize(this.changed().length, 'thing')} changed since ${day(this.on())}:`,
  );
}
