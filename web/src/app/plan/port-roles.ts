import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { rate } from '@ruddy/core/base/text';
import { type PortRole, portRoles } from '@ruddy/core/plan';
import { SetupEditor } from '../setups/setup-editor';

const ROLE: Record<PortRole['role'], string> = {
  dock: 'takes the dock',
  also: 'would do',
  free: 'carries no PCIe: hub, charger, screen',
  'other-plug': 'another kind of link',
  open: 'not enough known',
};

/** Which port takes the dock, which stays free, and which look alike: the chain judged through every port of the host. */
@Component({
  selector: 'rb-port-roles',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (roles().length > 0) {
      <details class="fold">
        <summary>{{ summary() }}</summary>
        <div class="wide" tabindex="0" role="region" aria-label="Ports of this host">
          <table class="list">
            <thead>
              <tr>
                <th scope="col">Port</th>
                <th scope="col">Mark</th>
                <th scope="col">Role for this chain</th>
                <th scope="col" class="figure">To card, Gb/s</th>
                <th scope="col">Looks like</th>
                <th scope="col"><span class="visually-hidden">Use</span></th>
              </tr>
            </thead>
            <tbody>
              @for (r of roles(); track r.key) {
                <tr [class.chosen]="r.inUse">
                  <th scope="row">{{ r.name }}{{ r.inUse ? ' (in use)' : '' }}</th>
                  <td>{{ r.mark || 'nothing' }}</td>
                  <td>{{ words[r.role] }}</td>
                  <td class="figure">{{ r.usable ? rate(r.usable) : '–' }}</td>
                  <td class="quiet">
                    {{ r.looksLike.length > 0 ? r.looksLike.join('; ') : 'no other' }}
                  </td>
                  <td>
                    @if (!r.inUse) {
                      <button
                        type="button"
                        class="link"
                        (click)="use(r)"
                        [attr.aria-label]="'Use the port ' + r.name"
                      >
                        Use it
                      </button>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <p class="quiet">
          Ports that look alike differ inside. Go by the mark and the place on the case; keep one
          port free for a hub.
        </p>
      </details>
    }
  `,
})
export class PortRoles {
  readonly #editor = inject(SetupEditor);
  readonly words = ROLE;
  readonly rate = rate;
  readonly roles = computed(() => {
    const j = this.#editor.judgement();
    // House rules that were set come with the evaluation; ports are compared under the same ones.
    const house = Object.fromEntries(
      (j?.evaluation.assumptions ?? []).map((a) => [a.rule, a.value]),
    );
    return j ? portRoles({ chain: j.chain, context: { asOf: j.evaluation.asOf, house } }) : [];
  });
  readonly summary = computed(() => {
    const roles = this.roles();
    const best = roles.find((r) => r.role === 'dock');
    const used = roles.find((r) => r.inUse);
    const alike = roles.find((r) => r.inUse && r.looksLike.length > 0);
    const first = !best
      ? `Ports ${roles.length}: none takes this dock for certain`
      : best.inUse
        ? `Ports ${roles.length}: the one in use takes the dock best`
        : `Ports ${roles.length}: ${best.name} would carry ${rate(best.usable)}${used?.usable ? ` instead of ${rate(used.usable)}` : ''} Gb/s`;
    return alike
      ? `${first}; ${alike.looksLike.length} ${alike.looksLike.length === 1 ? 'port looks' : 'ports look'} like it`
      : first;
  });

  use(r: PortRole): void {
    this.#editor.change({ slots: { socket: r.key } });
  }
}
