import type { AttrMeta } from '../schema/meta';
import type { PartKind } from '../schema/parts';
import { cellOf } from './cells';
import { columnsOf } from './columns';

/**
 * A line about each column for people who fill in a file: meaning, unit, limits or allowed words.
 * @param kind of parts
 * @returns columns with their lines
 */
export function columnHelp(kind: PartKind): { column: string; what: string }[] {
  const said = (m: AttrMeta) => {
    if (m.input === 'number')
      return `${m.min} to ${m.max}${m.unit ? ` ${m.unit}` : ''}, a range as "2 to 4", or nothing`;
    if (m.input === 'choice')
      return (
        (m.options ?? []).map((o) => o.value).join(', ') +
        (m.unsure ? '; several with | between; or nothing' : '')
      );
    return 'words';
  };
  const entry: Record<string, string> = {
    kind: 'the kind of part, the same in every row; may be left out',
    id: 'which part it is, as an export wrote it; nothing for a new one',
    retired: 'yes or nothing',
    sources: 'where values came from, as an export wrote it; may be left out',
  };
  return columnsOf(kind).map((c) => ({
    column: c.name,
    what: c.meta ? `${c.meta.label}: ${said(c.meta)}` : (entry[c.key] ?? ''),
  }));
}

/**
 * A first row of examples under the header of a template: an option of each choice, the middle of each range.
 * @param kind of parts
 * @returns cells
 */
export function templateRow(kind: PartKind): string[] {
  return columnsOf(kind).map((c) => {
    if (c.of === 'entry') return c.key === 'kind' ? kind : '';
    return c.meta && !c.meta.unsure && c.meta.input === 'choice'
      ? cellOf(c.meta.options?.[0]?.value)
      : '';
  });
}
