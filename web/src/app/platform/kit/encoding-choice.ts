import { ChangeDetectionStrategy, Component, output } from '@angular/core';
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

/** Asks in which encoding a file is, once the server could not tell. */
@Component({
  selector: 'rb-encoding-choice',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: `
    :host {
      display: block;
      max-width: 320px;
      margin: 8px;
    }
  `,
  template: `<rb-field [meta]="meta" [value]="''" (changed)="pick($event)" />`,
})
export class EncodingChoice {
  readonly chosen = output<Encoding>();
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
