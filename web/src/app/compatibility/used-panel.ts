import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { usedBody } from '@ruddy/core/bring-up/contract';
import { reliability, type UseSpan } from '@ruddy/core/compatibility';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { reliabilityWords } from '@ruddy/core/compatibility/text';
import { Acts } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { LogData } from './log';
import { ServerClock } from '../platform/shared/server-clock';

/** Hours in use with drops and freezes: what they say of the time between two, and the place to note more. */
@Component({
  selector: 'rb-used-panel',
  imports: [ReactiveFormsModule, MatButtonModule, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>{{ words() }}</p>
    <form [formGroup]="form" #of="ngForm" (ngSubmit)="note(of)" aria-label="Add hours in use">
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <div class="row">
        @for (f of fields; track f[0].label) {
          <rb-field [meta]="f[0]" [control]="f[1]" />
        }
      </div>
      <rb-field [meta]="seen" [control]="form.controls.words" />
      <p><button mat-stroked-button type="submit">Add hours</button></p>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 8px;
      margin-top: 8px;
    }
    .row {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
      gap: 8px;
    }
  `,
})
export class UsedPanel {
  readonly #log = inject(LogData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly clock = inject(ServerClock);
  readonly setupId = input.required<string>();
  readonly events = input.required<readonly SetupEvent[]>();
  readonly stored = output();
  readonly problem = signal<string | null>(null);
  #id = v7();
  readonly form = new FormGroup(
    {
      from: new FormControl<string | null>(this.clock.today()),
      until: new FormControl<string | null>(this.clock.today()),
      hours: new FormControl<number | null>(null),
      drops: new FormControl<number | null>(0),
      freezes: new FormControl<number | null>(0),
      words: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(usedBody, (raw: object) => ({ id: this.#id, ...raw })) },
  );
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'From', input: 'day' }, this.form.controls.from],
    [{ label: 'To', input: 'day' }, this.form.controls.until],
    [{ label: 'Hours', input: 'number', unit: 'h' }, this.form.controls.hours],
    [{ label: 'Drops', input: 'number' }, this.form.controls.drops],
    [{ label: 'Freezes', input: 'number' }, this.form.controls.freezes],
  ];
  readonly seen: FieldMeta = { label: 'Symptoms', input: 'text', max: 300 };
  /** What was noted and not taken back. */
  readonly spans = computed(() => {
    const gone = new Set(
      this.events().flatMap((e) => (e.kind === 'struck' && e.corrects ? [e.corrects] : [])),
    );
    return this.events()
      .filter((e) => e.kind === 'used' && !gone.has(e.id))
      .map((e) => e.body as unknown as UseSpan);
  });
  readonly words = computed(() => reliabilityWords(reliability(this.spans())));

  note(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const body = usedBody.parse({ id: this.#id, ...this.form.getRawValue() });
    this.#acts.send(this.form, this.#log.addUse(this.setupId(), body), {
      line: this.problem,
      done: `Added ${body.hours} h in use.`,
      then: () => {
        this.#id = v7();
        of.resetForm();
        this.form.patchValue({ from: this.clock.today(), until: this.clock.today() });
        this.stored.emit();
      },
    });
  }
}
