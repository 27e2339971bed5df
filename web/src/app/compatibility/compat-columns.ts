import { rate } from '@ruddy/core/base/text';
import type { CompatRow, CompatSort } from '@ruddy/core/compatibility/contract';
import { sharesWords } from '@ruddy/core/compatibility/text';
import { PORT_STANDARDS, type PortStandard } from '@ruddy/core/parts';
import { coverageWords, VERDICT_LABELS } from '@ruddy/core/plan/text';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { versionWords } from '../plan/record/version-words';
import type { Column } from '../platform/kit/columns';
import { day } from '../platform/shared/format';

/** A column whose order, if it has one, the server knows. */
interface CompatColumn extends Column<CompatRow> {
  readonly sort: CompatSort | null;
}

/** "2 of 3"; what others reported stands apart. */
export function seenText(r: CompatRow): string {
  const told = r.told.n === 0 ? '' : `, reported ${r.told.worked} of ${r.told.n}`;
  return r.seen.n === 0 ? `none${told}` : `${r.seen.worked} of ${r.seen.n}${told}`;
}

/** Columns of the table. Predicted and seen are never one column. */
export const COLUMNS: readonly CompatColumn[] = [
  {
    key: 'shared',
    name: 'Shares',
    wide: 7,
    sort: 'near',
    usual: false,
    text: (r) => (r.shared ? `${r.shared.weight.toFixed(2)}: ${sharesWords(r.shared.parts)}` : ''),
  },
  {
    key: 'host',
    name: 'Host',
    wide: 4.6,
    narrow: true,
    wrap: true,
    sort: 'host',
    usual: true,
    text: (r) => r.host,
  },
  {
    key: 'port',
    name: 'Port',
    wide: 4,
    sort: 'port',
    usual: true,
    text: (r) => PORT_STANDARDS[r.standard as PortStandard] ?? 'not known',
  },
  {
    key: 'cable',
    name: 'Cable, adapter',
    wide: 5,
    sort: null,
    usual: false,
    text: (r) => r.cable || 'not chosen',
  },
  {
    key: 'dock',
    name: 'Dock',
    wide: 4,
    narrow: true,
    wrap: true,
    sort: 'dock',
    usual: true,
    text: (r) => r.dock,
  },
  {
    key: 'card',
    name: 'Card',
    wide: 4,
    wrap: true,
    sort: 'card',
    usual: true,
    text: (r) => r.card,
  },
  {
    key: 'predicted',
    name: 'Predicted',
    wide: 8.4,
    sort: null,
    usual: true,
    text: ({ predicted: p }) =>
      `${VERDICT_LABELS[p.verdict]}${p.down ? `, ${rate(p.down)} Gb/s` : ''}, ${coverageWords(p.coverage)}`,
  },
  {
    key: 'seen',
    name: 'Worked when tried',
    wide: 4.6,
    narrow: true,
    sort: 'share',
    usual: true,
    text: seenText,
  },
  {
    key: 'now',
    name: 'Newest status',
    wide: 4.4,
    sort: null,
    usual: true,
    text: (r) => OUTCOME_WORDS[r.now.outcome],
  },
  {
    key: 'since',
    name: 'Holds since',
    wide: 3.4,
    sort: null,
    usual: true,
    text: (r) => day(r.now.since),
  },
  {
    key: 'newest',
    name: 'Newest',
    wide: 3,
    sort: 'newest',
    usual: false,
    text: (r) => day(r.now.on),
  },
  {
    key: 'versions',
    name: 'Under',
    wide: 6,
    sort: null,
    usual: false,
    text: (r) => versionWords(r.now.versions) || 'not noted',
  },
  {
    key: 'setups',
    name: 'Setups',
    wide: 5,
    sort: null,
    usual: false,
    text: (r) => r.setups.map((s) => s.name).join(', ') || 'from a file',
  },
];
