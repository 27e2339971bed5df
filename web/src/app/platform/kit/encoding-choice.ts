import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type Encoding, ENCODINGS } from '@ruddy/core/base/contract';
import { ApiError } from '../api/api-client';
import { Field } from './field';
import type { FieldMeta } from './meta';

const LABELS: Record<Encoding, string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16, little-endian',
  'utf-16be': 'UTF-16, big-endian',
  'windows-1252': 'Western European (Windows-1252)',
  'windows-1250': 'Central European (Windows-1250)',
  'windows-1251': 'Cyrillic (Windows-1251)',
  shift_jis: 'Japanese (Shift JIS)',
  gb18030: 'Chinese (GB 18030)',
};

/** Was a file refused because its encoding could not be told from its bytes? */
export function asksEncoding(error: unknown): boolean {
  return error instanceof ApiError && error.at('encoding') !== null;
}

/** How lines of a file would be in an encoding. */
export interface LinesIn {
  readonly encoding: Encoding;
  readonly lines: readonly string[];
}

/** Asks in which encoding a file is, with its lines in the likely ones where they are known. */
@Component({
  selector: 'rb-encoding-choice',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      margin: 8px;
    }
    .text {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    pre {
      color: var(--ink);
      overflow: hidden;
      max-width: 100%;
      text-overflow: ellipsis;
    }
    rb-field {
      max-width: 320px;
    }
  `,
  template: `
    @for (t of texts(); track t.encoding) {
      <div class="text">
        <pre>{{
          t.lines.join(
            '
'
          )
        }}</pre>
        <button mat-stroked-button type="button" (click)="chosen.emit(t.encoding)">
          This is right: {{ labels[t.encoding] }}
        </button>
      </div>
    }
    <rb-field [meta]="meta" [value]="''" (changed)="pick($event)" />
  `,
})
export class EncodingChoice {
  readonly texts = input<readonly LinesIn[]>([]);
  readonly chosen = output<Encoding>();
  readonly labels = LABELS;
  readonly meta: FieldMeta = {
    label: 'Encoding of the file',
    input: 'choice',
    options: ENCODINGS.map((value) => ({ value, label: LABELS[value] })),
  };

  pick(value: string): void {
    const encoding = ENCODINGS.find((e) => e === value);
    if (encoding) this.chosen.emit(encoding);
  }
}
