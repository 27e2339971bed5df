import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { UsedRow } from '@ruddy/core/bring-up/contract';
import { PROVENANCE_LABELS, reliability } from '@ruddy/core/compatibility';
import type { CompatRow } from '@ruddy/core/compatibility/contract';
import { reliabilityWords, seenWords } from '@ruddy/core/compatibility/text';
import { SetupsData } from '../setups/setups';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { versionWords } from '../plan/record/version-words';
import { day } from '../platform/shared/format';
import { MatButtonModule } from '@angular/material/button';
import { ask, State, valueOf } from '../platform/kit/ask';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

/** One chain opened: what was predicted, and every entry that was logged for it, newest first. */
@Component({
  selector: 'rb-chain-entries',
  imports: [Cell, Rows, MatButtonModule, RouterLink, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="chain-h">
      <h2 id="chain-h">{{ row().host }}, {{ row().port }}; {{ row().dock }}; {{ row().card }}</h2>
      <p><span class="eyebrow">Predicted</span> {{ row().predicted.sentence }}</p>
      <p>
        <span class="eyebrow">Seen</span>
        {{ seen() }}; newest status {{ words[row().now.outcome].toLowerCase() }} since
        {{ day(row().now.since)
        }}{{
          row().older > 0
            ? '; ' + row().older + ' older ' + (row().older === 1 ? 'set' : 'sets') + ' of versions'
            : ''
        }}.
      </p>
      <rb-state [of]="asked" what="the entries" />
      <rb-rows label="Entries of this chain" [columns]="entriesOfThisColumns" [rows]="entries()">
        <ng-template rbCell="day" [rbCellOf]="entries()" let-e
          ><span class="nowrap">{{ day(e.happenedOn) }}</span></ng-template
        >
        <ng-template rbCell="outcome" [rbCellOf]="entries()" let-e
          ><span class="outcome">{{ words[e.outcome] }}</span></ng-template
        >
        <ng-template rbCell="setup" [rbCellOf]="entries()" let-e>
          @if (e.setupId) {
            <a [routerLink]="['/setups', e.setupId, 'record']">{{ e.setupName }}</a>
          } @else {
            from {{ e.cameFrom || 'a file' }}
          }
        </ng-template>
        <ng-template rbCell="cable" [rbCellOf]="entries()" let-e>{{
          e.chain.cable || 'none'
        }}</ng-template>
        <ng-template rbCell="versions" [rbCellOf]="entries()" let-e
          ><span class="quiet">{{ versions(e.versions) || 'not noted' }}</span></ng-template
        >
        <ng-template rbCell="seenAndChanged" [rbCellOf]="entries()" let-e
          ><span class="quiet">{{ e.symptoms.concat(e.fixes).join('; ') }}</span></ng-template
        >
        <ng-template rbCell="known" [rbCellOf]="entries()" let-e
          ><span class="quiet nowrap"
            >{{ provenance[e.provenance]
            }}{{ e.confidence < 1 ? ', ' + (e.confidence * 100).toFixed(0) + ' % sure' : '' }}</span
          ></ng-template
        >
        <ng-template rbCell="status" [rbCellOf]="entries()" let-e
          ><span class="quiet nowrap">{{
            e.correctedBy ? 'corrected' : e.superseded ? 'older versions' : 'stands'
          }}</span></ng-template
        >
        <ng-template rbCell="share" [rbCellOf]="entries()" let-e
          ><a
            routerLink="/compatibility/share"
            [queryParams]="{ id: e.id }"
            [attr.aria-label]="'Share the entry of ' + day(e.happenedOn)"
            >Share</a
          ></ng-template
        >
        <p none>Reading the entries …</p>
      </rb-rows>
      @if (hours(); as h) {
        <p><span class="eyebrow">In use</span> {{ h }}</p>
      }
      <p class="acts">
        <a routerLink="/compatibility/share" [queryParams]="{ chain: row().key }"
          >Share these entries</a
        >
        <button mat-button type="button" (click)="closed.emit()">Close these entries</button>
      </p>
    </section>
  `,
  styleUrl: './chain-entries.scss',
})
export class ChainEntries {
  readonly entriesOfThisColumns: readonly ShortColumn[] = [
    { key: 'day', name: 'Day' },
    { key: 'outcome', name: 'Outcome' },
    { key: 'setup', name: 'Setup' },
    { key: 'cable', name: 'Cable' },
    { key: 'versions', name: 'Versions' },
    { key: 'seenAndChanged', name: 'Seen and changed' },
    { key: 'known', name: 'Known' },
    { key: 'status', name: 'Status' },
    { key: 'share', name: 'Share', silent: true },
  ];
  readonly #data = inject(SetupsData);
  readonly row = input.required<CompatRow>();
  readonly closed = output();
  readonly used = input<readonly UsedRow[]>([]);
  readonly seen = computed(() => {
    const { seen, told } = this.row();
    const words = seenWords({
      n: seen.n,
      works: seen.worked,
      care: 0,
      unreliable: 0,
      fails: seen.failed,
    });
    return told.n === 0
      ? words
      : `${words}; reported by others: ${told.worked} of ${told.n} worked`;
  });
  /** Hours in use of the setups of this chain. */
  readonly hours = computed(() => {
    const mine = this.used().filter((u) => this.row().setups.some((s) => s.id === u.setupId));
    return mine.length === 0 ? null : reliabilityWords(reliability(mine));
  });
  readonly asked = ask(
    (chain) => this.#data.outcomes({ chain, limit: 200 }),
    () => this.row().key,
  );
  readonly entries = computed(() => valueOf(this.asked)?.items ?? null);
  readonly words = OUTCOME_WORDS;
  readonly provenance = PROVENANCE_LABELS;
  readonly day = day;
  readonly versions = versionWords;
}
