import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { rate } from '@ruddy/core/base/text';
import { type PortRole, portRoles } from '@ruddy/core/plan';
import { SetupEditor } from '../setups/setup-editor';
import { Fold } from '../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

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
  imports: [Cell, Rows, MatButtonModule, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (roles().length > 0) {
      <rb-fold [name]="summary()">
        <rb-rows
          label="Ports of this host"
          [columns]="portsOfThisColumns"
          [marked]="inUse"
          [rows]="roles()"
        >
          <ng-template rbCell="port" [rbCellOf]="roles()" let-r
            >{{ r.name }}{{ r.inUse ? ' (in use)' : '' }}</ng-template
          >
          <ng-template rbCell="mark" [rbCellOf]="roles()" let-r>{{
            r.mark || 'nothing'
          }}</ng-template>
          <ng-template rbCell="roleForThis" [rbCellOf]="roles()" let-r>{{
            words[r.role]
          }}</ng-template>
          <ng-template rbCell="toCardGb" [rbCellOf]="roles()" let-r>{{
            r.usable ? rate(r.usable) : '–'
          }}</ng-template>
          <ng-template rbCell="looksLike" [rbCellOf]="roles()" let-r
            ><span class="quiet">{{
              r.looksLike.length > 0 ? r.looksLike.join('; ') : 'no other'
            }}</span></ng-template
          >
          <ng-template rbCell="use" [rbCellOf]="roles()" let-r>
            @if (!r.inUse) {
              <button
                mat-button
                type="button"
                (click)="use(r)"
                [attr.aria-label]="'Use the port ' + r.name"
              >
                Use it
              </button>
            }
          </ng-template>
        </rb-rows>
        <p class="quiet">
          Ports that look alike differ inside. Go by the mark and the place on the case; keep one
          port free for a hub.
        </p>
      </rb-fold>
    }
  `,
})
export class PortRoles {
  readonly portsOfThisColumns: readonly ShortColumn[] = [
    { key: 'port', name: 'Port' },
    { key: 'mark', name: 'Mark' },
    { key: 'roleForThis', name: 'Role for this chain' },
    { key: 'toCardGb', name: 'To card, Gb/s', figure: true },
    { key: 'looksLike', name: 'Looks like' },
    { key: 'use', name: 'Use', silent: true },
  ];
  readonly #editor = inject(SetupEditor);
  readonly words = ROLE;
  readonly inUse = (r: PortRole) => r.inUse;
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
