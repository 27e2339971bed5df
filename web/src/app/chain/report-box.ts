import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAX_CHARS, readReport, type Report } from '@ruddy/core/bring-up';
import { PROBE_COMMAND, READ_COMMAND, readProblemText } from '@ruddy/core/bring-up/text';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';

let boxes = 0;

/**
 * A place to paste, drop or open what a system prints. In: nothing. Out: the report, once it was read. What cannot be read is said and
 * stays in the box, unless it is far too long for one; serial numbers and names of machines are dropped while reading.
 */
@Component({
  selector: 'rb-report-box',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="box"
      [class.over]="over()"
      (dragover)="$event.preventDefault(); over.set(true)"
      (dragleave)="over.set(false)"
      (drop)="dropped($event)"
    >
      <p class="hint">
        What <code>{{ command }}</code> prints, or the report of
        <a href="/probe.mjs" download>the probe</a>: <code>{{ probe }}</code> on the host. Drop a
        file here, paste, or
        <button mat-button type="button" (click)="file.click()">open a file</button>. Serial numbers
        and machine names are dropped while reading.
      </p>
      <mat-form-field floatLabel="always">
        <mat-label>{{ label() }}</mat-label>
        <textarea
          #text
          matInput
          [id]="id"
          rows="4"
          spellcheck="false"
          autocomplete="off"
          [attr.aria-invalid]="problem() !== null"
          [attr.aria-describedby]="problem() ? id + '-p' : null"
          (paste)="pasted($event)"
        ></textarea>
      </mat-form-field>
      <input
        #file
        type="file"
        hidden
        accept=".txt,.log,.json,text/plain,application/json"
        (change)="opened(file)"
      />
      <div class="row">
        <button mat-button type="button" (click)="read(text.value)">Read it</button>
        <button mat-button type="button" (click)="copy()">
          {{ copied() ? 'Copied' : 'Copy the command' }}
        </button>
      </div>
      @if (problem(); as why) {
        <p class="problem" role="alert" [id]="id + '-p'">{{ why }}</p>
      }
    </div>
  `,
  styles: `
    .box {
      display: grid;
      gap: 4px;
      border: 1px dashed var(--rim);
      padding: 8px;
    }
    .box.over {
      border-style: solid;
      background: var(--select);
    }
    textarea {
      font: 13px/20px var(--mono, monospace);
    }
    .row {
      display: flex;
      gap: 8px;
    }
  `,
})
export class ReportBox {
  readonly label = input('Paste a report');
  readonly report = output<Report>();
  readonly id = `report-${++boxes}`;
  readonly command = READ_COMMAND;
  readonly probe = PROBE_COMMAND;
  readonly over = signal(false);
  readonly copied = signal(false);
  readonly problem = signal<string | null>(null);
  readonly text = viewChild.required<ElementRef<HTMLTextAreaElement>>('text');

  focus(): void {
    this.text().nativeElement.focus();
  }

  read(text: string): void {
    const r = readReport(text);
    this.problem.set(r.ok ? null : readProblemText(r.problem));
    if (r.ok) this.report.emit(r.report);
  }

  /** The pasted text stands in the box only after this event. One that is too long never goes in: laying it out takes many seconds. */
  pasted(event: ClipboardEvent): void {
    const pasted = event.clipboardData?.getData('text') ?? '';
    if (pasted.length > MAX_CHARS) {
      event.preventDefault();
      this.read(pasted);
      return;
    }
    setTimeout(() => this.read(this.text().nativeElement.value));
  }

  dropped(event: DragEvent): void {
    event.preventDefault();
    this.over.set(false);
    const file = event.dataTransfer?.files[0];
    if (file) void this.#readFile(file);
    else this.read(event.dataTransfer?.getData('text') ?? '');
  }

  opened(box: HTMLInputElement): void {
    const file = box.files?.[0];
    box.value = '';
    if (file) void this.#readFile(file);
  }

  copy(): void {
    void navigator.clipboard.writeText(READ_COMMAND).then(() => this.copied.set(true));
  }

  async #readFile(file: File): Promise<void> {
    // A file far beyond any listing is not even opened: four bytes are the most a character takes.
    if (file.size > MAX_CHARS * 4) {
      this.problem.set(
        `Not read: "${file.name}" has ${(file.size / 1e6).toFixed(1)} MB; a listing has well below one.`,
      );
      return;
    }
    try {
      this.read(await file.text());
    } catch {
      this.problem.set(`Not read: "${file.name}" could not be opened.`);
    }
  }
}
