import { type Installed, SOFTWARE_NAMES, type SoftwareRole } from '../../parts';

/** What a question to others is made of; everything in words, nothing private. */
export interface QuestionPack {
  /** Chain, host side first: noun and name. */
  readonly parts: readonly { readonly noun: string; readonly name: string }[];
  readonly installed: Installed;
  /** What is predicted, in one sentence. */
  readonly predicted: string;
  readonly symptoms: readonly string[];
  /** What was tried, newest first, each with how it ended. */
  readonly tried: readonly { readonly on: string; readonly what: string; readonly ended: string }[];
  readonly readings: readonly { readonly on: string; readonly words: string }[];
  readonly lastGood: string;
}

const list = (title: string, lines: readonly string[], none: string) => [
  title,
  ...(lines.length === 0 ? [`  ${none}`] : lines.map((l) => `  ${l}`)),
  '',
];

/**
 * One page for asking others, as plain text: chain, versions, what is seen, what was tried with outcomes, and
 * readings. Lines are short enough for any place a question is put.
 * @param q what is asked about
 * @returns the page, lines with a line feed between them
 */
export function packText(q: QuestionPack): string {
  const versions = (Object.entries(q.installed) as [SoftwareRole, string][]).filter(
    ([, v]) => v !== '',
  );
  const missing = (Object.entries(q.installed) as [SoftwareRole, string][])
    .filter(([, v]) => v === '')
    .map(([r]) => SOFTWARE_NAMES[r].toLowerCase());
  return [
    ...list('WHAT IS SEEN', q.symptoms, 'no symptom noted yet'),
    ...list(
      'CHAIN',
      q.parts.map((p) => `${p.noun}: ${p.name}`),
      'no part chosen',
    ),
    ...list(
      'VERSIONS',
      versions.map(([r, v]) => `${SOFTWARE_NAMES[r]}: ${v}`),
      'none noted',
    ),
    ...(missing.length > 0 && versions.length > 0
      ? [`  not known: ${missing.join(', ')}`, '']
      : []),
    ...list('EXPECTED', [q.predicted], ''),
    ...list(
      'TRIED, NEWEST FIRST',
      q.tried.map((t) => `${t.on}  ${t.what}: ${t.ended}`),
      'nothing noted',
    ),
    ...list(
      'READ',
      q.readings.map((r) => `${r.on}  ${r.words}`),
      'nothing read yet',
    ),
    ...list('LAST TIME IT WAS GOOD', q.lastGood === '' ? [] : [q.lastGood], 'not known'),
  ]
    .join('\n')
    .trimEnd();
}
