import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  COUPLED_ACTS,
  COUPLED_SEEN,
  type CoupledAct,
  type CoupledSeen,
  type Coupling,
} from '@ruddy/core/setups';
import { SetupEditor } from '../setups/setup-editor';
import { optionsOf } from '../platform/kit/meta';
import { Choice } from '../platform/kit/choice';

interface Row {
  readonly act: CoupledAct;
  readonly other: 'on' | 'off';
  readonly label: string;
}

const other = (act: CoupledAct) => (act.startsWith('host') ? 'dock' : 'host');
const row = (act: CoupledAct, state: 'on' | 'off'): Row => ({
  act,
  other: state,
  label: `${COUPLED_ACTS[act]}, ${other(act)} ${state}`,
});
const ALL: readonly Row[] = [
  row('host-on', 'off'),
  row('host-on', 'on'),
  row('host-off', 'on'),
  row('host-sleep', 'on'),
  row('dock-on', 'off'),
  row('dock-on', 'on'),
  row('dock-off', 'on'),
  row('plug', 'on'),
  row('unplug', 'on'),
];
/** On a direct link nothing is plugged, and no dock switched, while the other side runs. */
const SAFE_DIRECT: readonly CoupledAct[] = ['host-on', 'host-off', 'host-sleep'];

/** What each button does, with the other side on and off. */
@Component({
  selector: 'rb-buttons-panel',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (r of rows(); track r.label) {
      <rb-choice
        [label]="r.label"
        [options]="seen"
        [value]="valueOf(r)"
        (chosen)="set(r, $event)"
        [named]="true"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
  `,
})
export class ButtonsPanel {
  readonly #editor = inject(SetupEditor);
  readonly seen = optionsOf(COUPLED_SEEN);
  readonly #direct = computed(
    () => this.#editor.judgement()?.evaluation.predicted.link.kind === 'direct',
  );
  readonly rows = computed(() =>
    this.#direct() ? ALL.filter((r) => SAFE_DIRECT.includes(r.act)) : ALL,
  );
  readonly #list = computed<readonly Coupling[]>(() => this.#editor.fields()?.docked.buttons ?? []);

  valueOf(r: Row): string | null {
    return this.#list().find((b) => b.act === r.act && b.other === r.other)?.seen ?? null;
  }

  set(r: Row, value: string | null): void {
    const d = this.#editor.fields()?.docked;
    if (!d) return;
    const rest = d.buttons.filter((b) => b.act !== r.act || b.other !== r.other);
    const buttons =
      value === null ? rest : [...rest, { act: r.act, other: r.other, seen: value as CoupledSeen }];
    this.#editor.change({ docked: { ...d, buttons } });
  }
}
