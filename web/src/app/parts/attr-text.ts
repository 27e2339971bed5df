import type { AttrMeta } from '@ruddy/core/parts';

/** A value as a list shows it: numbers with a point, ranges, the words of a choice; nothing where it is not known. */
export function attrText(meta: AttrMeta, value: unknown): string {
  if (value === null || value === undefined || value === '') return '';
  if (meta.input === 'list') return `${(value as unknown[]).length}`;
  if (typeof value === 'object' && 'lo' in value) {
    const r = value as { lo: number; hi: number };
    return `${r.lo} to ${r.hi}`;
  }
  if (meta.input !== 'choice') return String(value as string | number);
  const label = (v: string) => meta.options?.find((o) => o.value === v)?.label ?? v;
  return typeof value === 'string'
    ? label(value)
    : (value as { oneOf: string[] }).oneOf.map(label).join(' or ');
}

/** The same with its unit, and "not known" said. */
export function attrSaid(meta: AttrMeta, value: unknown): string {
  const text = attrText(meta, value);
  if (text === '') return meta.unsure ? 'not known' : 'nothing';
  return meta.unit ? `${text} ${meta.unit}` : text;
}
