import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import type { PracticeBody, PracticeRow } from '@ruddy/core/bench/contract';
import { CASE_GRADES } from '@ruddy/core/bench/text';
import { CAUSE_WORDS, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { SetupsData } from '../../setups/setups';
import { TroubleData } from '../../troubleshoot/trouble';
import { pluralize, day } from '../../platform/shared/format';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { readyToSend, zodForm } from '../../platform/kit/problems';
import { Acts, ask, State, valueOf } from '../../platform/kit/ask';
import { seedMeta, seedSchema } from '../seed';

/** Practice: graded cases, a fault hidden at random, and what was practised so far. */
@Component({
  selector: 'rb-practice-list',
  imports: [Field, MatButtonModule, RouterLink, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './practice-list.html',
  styleUrl: './practice-list.scss',
})
export class PracticeList {
  readonly #data = inject(TroubleData);
  readonly #setups = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #acts = inject(Acts);
  readonly list = ask(() => this.#data.practices());
  readonly listed = computed(() => valueOf(this.list) ?? null);
  readonly named = ask(() => this.#setups.list({}));
  readonly setups = computed(() => valueOf(this.named)?.items ?? []);
  readonly busy = signal(false);
  readonly grades = CASE_GRADES;
  readonly symptoms = SYMPTOM_WORDS;
  readonly causes = CAUSE_WORDS;
  readonly day = day;
  readonly counted = pluralize;
  readonly headline = computed(() => {
    const l = this.listed();
    if (!l) return 'Reading what was practised …';
    const over = l.items.filter((p) => p.right !== null);
    const right = over.filter((p) => p.right === true).length;
    const open = l.items.length - over.length;
    return `Find a hidden fault: ${l.cases.length} graded cases, or one at random. ${right} of ${over.length} found so far${open > 0 ? `, ${open} open` : ''}.`;
  });
  /** The cases with how each went best. */
  readonly cases = computed(() =>
    (this.listed()?.cases ?? []).map((c) => {
      const tries = this.listed()?.items.filter((p) => p.caseNo === c.no && p.right !== null) ?? [];
      const right = tries.filter((p) => p.right);
      const best = right.reduce<PracticeRow | null>(
        (a, p) => (a && a.minutes <= p.minutes ? a : p),
        null,
      );
      const words = best
        ? `found in ${pluralize(best.steps.length, 'step')}, ${pluralize(best.minutes, 'minute')}; best path ${best.bestMinutes ?? 0}`
        : tries.length > 0
          ? `${pluralize(tries.length, 'try', 'tries')}, not found yet`
          : 'not tried yet';
      return { ...c, words };
    }),
  );

  readonly form = new FormGroup(
    {
      setupId: new FormControl<string | null>(null),
      seed: new FormControl<number | null>(null),
      two: new FormControl(false, { nonNullable: true }),
    },
    { validators: zodForm(seedSchema(999_999)) },
  );
  readonly setupMeta = computed<FieldMeta>(() => ({
    label: 'In the chain of',
    input: 'choice',
    placeholder: 'the practice shelf',
    options: this.setups().map((s) => ({ value: s.id, label: s.name })),
  }));
  readonly seedMeta = seedMeta('The same chain and seed hide the same fault.');
  readonly twoMeta: FieldMeta = {
    label: 'Two faults at once; naming either is right',
    input: 'flag',
  };

  begin(body: Partial<PracticeBody>): void {
    if (this.busy()) return;
    this.busy.set(true);
    const id = v7();
    this.#acts.run(this.#data.begin({ id, ...body }), {
      failed: 'No fault hidden.',
      then: () => void this.#router.navigateByUrl(`/bench/practice/${id}`),
      otherwise: () => this.busy.set(false),
    });
  }

  random(box: HTMLElement): void {
    if (readyToSend(this.form, box)) this.begin(this.form.getRawValue());
  }

  remove(p: PracticeRow): void {
    this.#acts.run(this.#data.remove(p.id), {
      done: `${p.name} removed.`,
      failed: 'Not removed.',
      then: () => this.list.reload(),
    });
  }

  words(p: PracticeRow): string {
    if (p.right === null) return `open, ${pluralize(p.steps.length, 'step')} so far`;
    const best = `best path ${pluralize(p.bestMinutes ?? 0, 'minute')}`;
    return `${p.right ? 'found' : 'not found'}: ${pluralize(p.steps.length, 'step')}, ${pluralize(p.minutes, 'minute')}; ${best}`;
  }
}
