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
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import type { Account, CodesBegun } from '@ruddy/core/workshop/contract';
import { Acts } from '../platform/kit/ask';
import { Confirm } from '../platform/kit/confirm';
import { Field } from '../platform/kit/field';
import { readyToSend } from '../platform/kit/problems';
import { download } from '../platform/shared/download';
import { CODE_META } from '../platform/shell/one-time-code';
import { AccountData } from './people';

/** One-time codes of one's own: begun with a picture to scan, ended, and the recovery codes shown once. */
@Component({
  selector: 'rb-one-time-codes',
  imports: [Field, MatButtonModule, ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './one-time-codes.html',
  styleUrl: './one-time-codes.scss',
})
export class OneTimeCodes {
  readonly #data = inject(AccountData);
  readonly #acts = inject(Acts);
  readonly #confirm = inject(Confirm);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly account = input.required<Account>();
  readonly changed = output<string>();
  readonly problem = signal<string | null>(null);
  /** A new secret that waits for its first code. */
  readonly begun = signal<CodesBegun | null>(null);
  /** Shown once, right after they were made. */
  readonly recovery = signal<readonly string[] | null>(null);
  readonly form = new FormGroup({
    code: new FormControl('', { nonNullable: true, validators: Validators.required }),
  });
  readonly codeMeta = { ...CODE_META, help: 'Six digits' };
  readonly picture = computed(
    () => `data:image/svg+xml;utf8,${encodeURIComponent(this.begun()?.qr ?? '')}`,
  );
  /** In fours, as people type it. */
  readonly secret = computed(() => this.begun()?.secret.replace(/(.{4})(?=.)/g, '$1 ') ?? '');

  begin(): void {
    this.#acts.run(this.#data.beginCodes(), {
      line: this.problem,
      failed: 'Not begun.',
      then: (made) => {
        this.form.reset();
        this.recovery.set(null);
        this.begun.set(made);
      },
    });
  }

  accept(): void {
    if (!readyToSend(this.form, this.#el)) return;
    const code = this.form.getRawValue().code.replaceAll(/\s/g, '');
    this.#acts.send(this.form, this.#data.acceptCodes(code), {
      line: this.problem,
      failed: 'Not turned on.',
      then: ({ recovery }) => {
        this.begun.set(null);
        this.recovery.set(recovery);
        this.changed.emit('One-time codes are on: the next sign-in asks for one.');
      },
    });
  }

  save(): void {
    const lines = ['Recovery codes of Ruddy Bridge; each counts once.', ...(this.recovery() ?? [])];
    download('recovery-codes.txt', 'text/plain', `${lines.join('\n')}\n`);
  }

  askEnd(): void {
    this.#confirm.before(
      {
        title: 'Turn one-time codes off?',
        loses: 'From then on your password alone lets anybody in who knows it.',
        more: 'The recovery codes are worth nothing any more.',
        act: 'Turn them off',
      },
      () =>
        this.#acts.run(this.#data.dropCodes(), {
          line: this.problem,
          failed: 'Not turned off.',
          then: () => {
            this.recovery.set(null);
            this.changed.emit('One-time codes are off.');
          },
        }),
    );
  }
}
