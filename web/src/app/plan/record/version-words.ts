import { VERSION_LABELS } from '@ruddy/core/compatibility';
import type { OutcomeEntry } from '@ruddy/core/compatibility/contract';

const KEYS = Object.keys(VERSION_LABELS) as (keyof typeof VERSION_LABELS)[];

/** "system build 6118, card driver 41.2"; empty when none was noted. */
export function versionWords(versions: OutcomeEntry['versions']): string {
  return KEYS.flatMap((k) =>
    versions[k] ? [`${VERSION_LABELS[k].toLowerCase()} ${versions[k]}`] : [],
  ).join(', ');
}
