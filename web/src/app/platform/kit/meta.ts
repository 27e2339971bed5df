import type { AttrMeta } from '@ruddy/core/parts';

/** What is known of a field: an `AttrMeta` is one as it is. */
export interface FieldMeta {
  readonly label: string;
  readonly input: AttrMeta['input'] | 'toggle';
  readonly unit?: string;
  readonly min?: number;
  readonly max?: number;
  readonly options?: AttrMeta['options'];
  readonly unsure?: boolean;
  readonly help?: string;
  /** What stands for an empty value. */
  readonly placeholder?: string;
}

/** Limits and help of a field in one line: both, where there are both. */
export function hintOf(m: FieldMeta): string {
  const limits =
    m.input === 'number' && m.min !== undefined && m.max !== undefined ? `${m.min}–${m.max}` : '';
  return [limits, m.help ?? ''].filter((s) => s !== '').join('. ');
}

/** What is wrong with a control's value, in words: what was typed, what the server said, or a limit. */
export function problemOf(errors: Record<string, unknown> | null): string | null {
  const first = errors?.['typed'] ?? errors?.['server'] ?? errors?.['limits'];
  return typeof first === 'string' ? first : null;
}
