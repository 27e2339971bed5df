import { ChangeDetectionStrategy, Component, computed, inject, viewChild } from '@angular/core';
import { figure, rate } from '@ruddy/core/base/text';
import { type Route, routesOf } from '@ruddy/core/plan';
import { EVICTS, NETWORK_LEFT } from '@ruddy/core/plan/text';
import { SetupEditor } from '../setups/setup-editor';
import { TermWord } from '../platform/glossary/term';
import { Fold } from '../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const OPENING: Record<Route['opening'], string> = {
  none: 'stays closed',
  cover: 'a cover comes off',
  cut: 'the shell is cut',
  'not known': 'not known',
};

/** Every way this host can reach a card, side by side, with what each costs. */
@Component({
  selector: 'rb-routes-table',
  imports: [Cell, Rows, MatButtonModule, Fold, TermWord],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: ``,
  template: `
    @if (routes().length > 0) {
      <rb-fold [name]="summary()">
        <rb-rows
          label="Routes of this host"
          [columns]="routesOfThisColumns"
          [marked]="inUse"
          [rows]="routes()"
        >
          <ng-template rbCell="route" [rbCellOf]="routes()" let-r
            >{{ r.name }}{{ r.inUse ? ' (in use)' : '' }}</ng-template
          >
          <ng-template rbCell="link" [rbCellOf]="routes()" let-r>{{ kind(r) }}</ng-template>
          <ng-template rbCell="toCardGb" [rbCellOf]="routes()" let-r>{{
            r.kind === 'none' ? '0.0' : rate(r.usable)
          }}</ng-template>
          <ng-template rbCell="takesOut" [rbCellOf]="routes()" let-r>{{
            r.evicts ? evicts[r.evicts] : '–'
          }}</ng-template>
          <ng-template rbCell="startsFrom" [rbCellOf]="routes()" let-r>{{ starts(r) }}</ng-template>
          <ng-template rbCell="network" [rbCellOf]="routes()" let-r>{{
            network[r.network]
          }}</ng-template>
          <ng-template rbCell="host" [rbCellOf]="routes()" let-r>{{
            opening[r.opening]
          }}</ng-template>
          <ng-template rbCell="livePlugging" [rbCellOf]="routes()" let-r>{{
            r.kind === 'none' ? '–' : r.hotPlug ? 'yes' : 'never'
          }}</ng-template>
          <ng-template rbCell="portable" [rbCellOf]="routes()" let-r>{{
            r.portable ? 'yes' : 'no'
          }}</ng-template>
          <ng-template rbCell="charges" [rbCellOf]="routes()" let-r>{{
            r.chargeW ? 'up to ' + watts(r) + ' W' : 'no'
          }}</ng-template>
          <ng-template rbCell="use" [rbCellOf]="routes()" let-r>
            @if (!r.inUse) {
              <button
                mat-button
                type="button"
                (click)="use(r)"
                [attr.aria-label]="'Use the route ' + r.name"
              >
                Use it
              </button>
            }
          </ng-template>
        </rb-rows>
        <p class="quiet">
          A <rb-term of="direct" /> is faster than a <rb-term of="tunnel" /> and never plugged live.
          Rates are what the port allows with the best dock there could be. A slot is real: an
          adapter takes out what sits in it. Opening and cutting: only as far as the maker's manual
          goes.
        </p>
      </rb-fold>
    }
  `,
})
export class RoutesTable {
  readonly routesOfThisColumns: readonly ShortColumn[] = [
    { key: 'route', name: 'Route' },
    { key: 'link', name: 'Link' },
    { key: 'toCardGb', name: 'To card, Gb/s at most', figure: true },
    { key: 'takesOut', name: 'Takes out' },
    { key: 'startsFrom', name: 'Starts from' },
    { key: 'network', name: 'Network' },
    { key: 'host', name: 'Host' },
    { key: 'livePlugging', name: 'Live plugging' },
    { key: 'portable', name: 'Portable' },
    { key: 'charges', name: 'Charges' },
    { key: 'use', name: 'Use', silent: true },
  ];
  readonly #editor = inject(SetupEditor);
  readonly fold = viewChild(Fold);
  readonly evicts = EVICTS;
  readonly inUse = (r: Route) => r.inUse;
  readonly network = NETWORK_LEFT;
  readonly opening = OPENING;
  readonly rate = rate;
  readonly routes = computed(() => {
    const j = this.#editor.judgement();
    if (!j?.chain.host) return [];
    const house = Object.fromEntries(j.evaluation.assumptions.map((a) => [a.rule, a.value]));
    return routesOf(j.chain.host, j.chain.socket, { asOf: j.evaluation.asOf, house });
  });
  readonly summary = computed(() => {
    const ways = this.routes().filter((r) => r.kind !== 'none');
    const best = ways[0];
    const rest = this.routes().length - ways.length;
    const none = rest > 0 ? `, ${rest} that carry no PCIe` : '';
    if (!best) return `Routes 0: no port or slot of this host carries PCIe${none}`;
    const cost =
      best.evicts && best.evicts !== 'nothing' ? `, takes out ${EVICTS[best.evicts]}` : '';
    return `Routes ${ways.length}${none}: the fastest is ${best.name}, ${rate(best.usable)} Gb/s${cost}`;
  });

  kind(r: Route): string {
    return r.kind === 'none' ? 'no PCIe' : r.kind === 'tunnel' ? 'tunnel' : 'direct';
  }

  starts(r: Route): string {
    if (r.evicts !== 'system-drive') return 'as before';
    return r.bootTo.length > 0 ? `moved to ${r.bootTo.join(' or ')}` : 'another drive first';
  }

  watts(r: Route): string {
    return r.chargeW ? figure(r.chargeW) : '';
  }

  use(r: Route): void {
    this.#editor.change({ slots: { socket: r.key } });
  }

  show(): void {
    this.fold()?.show();
  }
}
