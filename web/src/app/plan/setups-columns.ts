import { rate } from '@ruddy/core/base/text';
import type { SetupRow } from '@ruddy/core/plan/contract';
import { coverageWords, VERDICT_LABELS } from '@ruddy/core/plan/text';
import type { LinkOverheadRow } from '@ruddy/core/runs/contract';
import { shortOverheadText } from '@ruddy/core/runs/text';
import { day } from '../platform/shared/format';
import type { Column } from '../platform/kit/columns';

const OUTCOME = {
  works: 'worked',
  care: 'worked with care',
  unreliable: 'unreliable',
  fails: 'failed',
} as const;

/** "worked 8 Nov 2026". */
function lastText({ last }: SetupRow): string {
  return last ? `${OUTCOME[last.outcome]} ${day(last.on)}` : 'never tried';
}

/** Link overheads by setup, as far as they were asked; null where none can be told. */
export type Overheads = ReadonlyMap<string, LinkOverheadRow | null>;

/** What the link costs a frame: computed after the list is there. */
function overheadText(found: LinkOverheadRow | null | undefined): string {
  if (found === undefined) return '…';
  return found ? shortOverheadText(found.ms) : '–';
}

/** Columns of the list of setups; those the server sorts by carry its name for it. */
export const setupColumns = (overheads: Overheads): readonly Column<SetupRow>[] => [
  { key: 'name', name: 'Name', wide: 5.4, narrow: true, sort: 'name', text: (r) => r.name },
  {
    key: 'chain',
    name: 'Diagram',
    wide: 5.2,
    text: (r) => `${r.chain.host || 'no host'} to ${r.chain.card || 'no card'}`,
  },
  {
    key: 'verdict',
    name: 'Verdict',
    wide: 5.3,
    narrow: true,
    text: (r) => VERDICT_LABELS[r.glance.verdict],
  },
  {
    key: 'rate',
    name: 'Bottleneck, Gb/s',
    wide: 3.5,
    figure: true,
    narrow: true,
    text: (r) => (r.glance.pinch.usable ? rate(r.glance.pinch.usable) : 'not known'),
  },
  {
    key: 'overhead',
    name: 'Link overhead, ms',
    wide: 3.7,
    figure: true,
    text: (r) => overheadText(overheads.get(r.id)),
  },
  { key: 'last', name: 'Last tried', wide: 4, wrap: true, text: lastText },
  {
    key: 'state',
    name: 'State',
    wide: 2.6,
    sort: 'state',
    text: (r) => (r.state === 'retired' ? 'archived' : r.state),
  },
  {
    key: 'parts',
    name: 'Parts',
    wide: 5.2,
    wrap: true,
    text: (r) =>
      [r.chain.host || 'no host', r.chain.dock || 'no dock', r.chain.card || 'no card'].join(', '),
  },
  {
    key: 'known',
    name: 'Known',
    usual: false,
    text: (r) => coverageWords(r.glance.coverage),
  },
  {
    key: 'changed',
    name: 'Changed',
    usual: false,
    sort: 'changed',
    text: (r) => day(r.savedAt),
  },
];
