import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { forkJoin, type Observable } from 'rxjs';
import { v7 } from 'uuid';
import type { SetupRow } from '@ruddy/core/plan/contract';
import type { Setup, SetupState } from '@ruddy/core/setups/contract';
import { Acts } from '../platform/kit/ask';
import { pluralize } from '../platform/shared/format';
import { SetupsData } from '../setups/setups';

/** Names get a suffix; the server allows 80 characters. */
const NAME_MOST = 74;

/** States as the interface names them. */
export const STATE_NAMES: Readonly<Record<SetupState, string>> = {
  planned: 'Planned',
  building: 'Building',
  live: 'Live',
  retired: 'Archived',
};

type Row = Pick<SetupRow, 'id' | 'name' | 'rev' | 'state'>;

/** What can be done with setups in a list: clone, share, archive, restore. */
@Injectable({ providedIn: 'root' })
export class SetupActs {
  readonly #data = inject(SetupsData);
  readonly #acts = inject(Acts);
  readonly #router = inject(Router);
  readonly #dialog = inject(MatDialog);

  /** Clones a setup and opens the copy. */
  clone(row: Pick<Row, 'id' | 'name'>): void {
    const id = v7();
    const name = `${row.name.slice(0, NAME_MOST)} copy`;
    this.#acts.run(this.#data.clone(row.id, { id, name }), {
      failed: 'Not cloned.',
      then: () => void this.#router.navigateByUrl(`/setups/${id}/plan`),
    });
  }

  /** What would leave and what stays, then a file. */
  share(row: Pick<Row, 'id' | 'name'>): void {
    const data = { id: row.id, name: row.name };
    void import('./share-dialog').then((m) =>
      this.#dialog.open(m.ShareDialog, { data, width: '520px' }),
    );
  }

  /** Archives setups; Undo gives each its state back. */
  archive(rows: readonly Row[], then: () => void): void {
    if (rows.length === 0) return;
    const name = rows.length === 1 ? (rows[0]?.name ?? '') : pluralize(rows.length, 'setup');
    const archived = rows.map((): SetupState => 'retired');
    const before = rows.map((r) => r.state);
    this.#acts.run(this.#set(rows, archived), {
      failed: 'Not archived.',
      then: (stored) => {
        then();
        const undo = () =>
          this.#acts.run(this.#set(stored, before), {
            failed: 'Not restored.',
            then,
            otherwise: then,
          });
        this.#acts.say(`Archived ${name}.`, undo);
      },
      // Some of several may be stored: the list is read again.
      otherwise: then,
    });
  }

  /** Gives archived setups the state planned. */
  restore(rows: readonly Row[], then: () => void): void {
    const states = rows.map((): SetupState => 'planned');
    this.#acts.run(this.#set(rows, states), {
      done: 'Restored as planned.',
      failed: 'Not restored.',
      then,
      otherwise: then,
    });
  }

  #set(
    rows: readonly Pick<Row, 'id' | 'rev'>[],
    states: readonly SetupState[],
  ): Observable<Setup[]> {
    return forkJoin(
      rows.map((r, i) => this.#data.patch(r.id, { state: states[i] ?? 'planned' }, r.rev)),
    );
  }
}
