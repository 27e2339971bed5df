import {
  type OrderId,
  type Outcome,
  PURPOSES,
  type StepId,
  type SymptomId,
} from '@ruddy/core/base';
import type { AttemptRow } from '@ruddy/core/bring-up/contract';
import { ORDER_WORDS, PURPOSE_WORDS } from '@ruddy/core/bring-up/text';
import { money } from '@ruddy/core/buy/text';
import type { OutcomeEntry, SetupEvent } from '@ruddy/core/compatibility/contract';
import { type Installed, SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { CAME_BACK_WRONG, type CameBackWrong } from '@ruddy/core/setups';
import { installedWords } from '@ruddy/core/setups/text';
import type { TroubleNote } from '@ruddy/core/troubleshoot';
import { noteWords, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { OUTCOME_WORDS } from './outcome-form';
import { versionWords } from './version-words';

export interface Line {
  event: SetupEvent;
  kind: string;
  /** What a filter knows it by. */
  group: Group;
  what: string;
  more: string[];
  outcome: Outcome | null;
  /** What corrects it or takes it back; it no longer counts. */
  corrections: Line[];
}
export type Group =
  | 'start'
  | 'outcome'
  | 'reading'
  | 'parts'
  | 'version'
  | 'step'
  | 'fault'
  | 'price'
  | 'run'
  | 'note';

export const FILTERS: Readonly<Record<'all' | Group, string>> = {
  all: 'everything',
  start: 'starts',
  step: 'steps',
  fault: 'faults',
  version: 'versions',
  reading: 'readings',
  outcome: 'outcomes',
  parts: 'parts and settings',
  run: 'runs',
  price: 'prices',
  note: 'notes',
};

type Body = Record<string, unknown>;
type Said = Omit<Line, 'event' | 'corrections'>;

function strings(value: unknown): string[] {
  return Array.isArray(value) ? value.map(String) : [];
}
const text = (b: Body, key: string) => (typeof b[key] === 'string' ? b[key] : '');
const orderName = (b: Body) => ORDER_WORDS[b['order'] as OrderId]?.name ?? '';

function outcomeLines(b: Body): string[] {
  const versions = versionWords((b['versions'] ?? {}) as OutcomeEntry['versions']);
  return [
    versions ? `Under ${versions}` : 'Versions not noted',
    orderName(b) ? `Order: ${orderName(b)}` : '',
    strings(b['symptoms']).length > 0 ? `Seen: ${strings(b['symptoms']).join('; ')}` : '',
    strings(b['fixes']).length > 0 ? `Changed: ${strings(b['fixes']).join('; ')}` : '',
    text(b, 'note') ? `Note: ${text(b, 'note')}` : '',
  ].filter((s) => s !== '');
}

const seen = (b: Body) => (b['symptom'] ? SYMPTOM_WORDS[b['symptom'] as SymptomId] : '');

function stepLine(b: Body, title: (id: StepId) => string): Said {
  const state = text(b, 'state');
  const noted = ((b['noted'] ?? []) as { what: string; from: string; to: string }[]).filter(
    (n) => n.from !== n.to,
  );
  const wrong = strings(b['wrong']).map((w) => CAME_BACK_WRONG[w as CameBackWrong].toLowerCase());
  const why = [seen(b), text(b, 'reason')].filter((s) => s !== '').join(': ');
  return {
    kind: `Attempt ${String(b['no'])}`,
    group: state === 'failed' ? 'fault' : 'step',
    what: `${title(b['step'] as StepId)}: ${state}${why ? `, ${why}` : ''}`,
    more: [
      ...noted.map(
        (n) =>
          `${SOFTWARE_NAMES[n.what as SoftwareRole] ?? n.what}: ${n.from || 'not known'} to ${n.to || 'not known'}`,
      ),
      ...(wrong.length > 0 ? [`Came back wrong: ${wrong.join(', ')}`] : []),
    ],
    outcome: null,
  };
}

function endedLine(b: Body): Said {
  const how =
    b['worked'] === true
      ? 'the card came up'
      : b['worked'] === false
        ? 'the card did not come up'
        : 'says nothing of the order';
  const name =
    b['attempt'] === null ? 'Try from before' : `Attempt ${String(b['no'])} ${text(b, 'outcome')}`;
  const failed = b['outcome'] === 'failed';
  const more = [
    seen(b),
    text(b, 'reason'),
    text(b, 'build') ? `Build ${text(b, 'build')}` : '',
  ].filter((s) => s !== '');
  return {
    kind: 'Attempt',
    group: failed ? 'fault' : 'start',
    what: `${name}: ${orderName(b)}, ${how}`,
    more,
    outcome: null,
  };
}

function goodLine(b: Body): Said {
  const versions = installedWords((b['installed'] ?? {}) as Partial<Installed>);
  const more = [versions ? `Under ${versions}` : 'Versions not noted', text(b, 'note')].filter(
    (s) => s !== '',
  );
  return {
    kind: 'Good',
    group: 'version',
    what: 'Marked as the last known good',
    more,
    outcome: null,
  };
}

const RUN_SAID: Readonly<Record<string, string>> = {
  settings: 'settings',
  context: 'how it was captured',
  titleId: 'title',
  cutS: 'its beginning cut',
  segments: 'scenes',
  starts: 'where its sensors begin',
};

function runWords(b: Body): string {
  const result = b['result'] as { value: number; unit: string } | null;
  const head = `${text(b, 'title')}: `;
  if (b['kind'] === 'none') return `${head}could not be run, ${text(b, 'reason')}`;
  return result ? `${head}${result.value} ${result.unit}` : `${head}frame times captured`;
}

function plain(kind: string, group: Group, what: string, more: string[] = []): Said {
  return { kind, group, what, more, outcome: null };
}

function partsLine(b: Body): Said {
  const list = (b['changes'] ?? []) as { slot: string; from: string; to: string }[];
  const words = list.map((c) => `${c.slot}: ${c.from || 'nothing'} to ${c.to || 'nothing'}`);
  return plain('Parts', 'parts', words.join('; '));
}

function outcomeLine(b: Body): Said {
  const outcome = b['outcome'] as Outcome;
  const group = outcome === 'fails' || outcome === 'unreliable' ? 'fault' : 'outcome';
  return { kind: 'Outcome', group, what: OUTCOME_WORDS[outcome], more: outcomeLines(b), outcome };
}

function readingLine(b: Body): Said {
  const note = String((b['reading'] as { note?: string } | undefined)?.note ?? '');
  const through = (b['through'] ?? {}) as { cable?: string; piece?: string };
  const cable = [through.piece, through.cable].filter(Boolean).join(', ');
  return plain('Reading', 'reading', text(b, 'sentence'), [
    ...(cable ? [`Through ${cable}`] : []),
    ...(note ? [`Note: ${note}`] : []),
  ]);
}

function versionLine(b: Body): Said {
  const name = SOFTWARE_NAMES[b['what'] as SoftwareRole] ?? 'Version';
  const change = `${text(b, 'from') || 'not known'} to ${text(b, 'to') || 'not known'}`;
  return plain('Version', 'version', `${name}: ${change}`);
}

function attemptLine(b: Body): Said {
  const purpose = PURPOSES.find((p) => p === b['purpose']) ?? 'bring-up';
  const no = String(b['no'] as AttemptRow['no']);
  const what = `${PURPOSE_WORDS[purpose]}, attempt ${no} begun: ${orderName(b)}`;
  return plain('Attempt', 'start', what);
}

function usedLine(b: Body): Said {
  const hours = Number(b['hours']);
  const drops = Number(b['drops']);
  const freezes = Number(b['freezes']);
  const what = `${hours} hours, ${drops} ${drops === 1 ? 'drop' : 'drops'}, ${freezes} ${freezes === 1 ? 'freeze' : 'freezes'}`;
  const more = [`From ${text(b, 'from')} to ${text(b, 'until')}`, text(b, 'words')];
  return plain(
    'Use',
    drops + freezes > 0 ? 'fault' : 'reading',
    what,
    more.filter((s) => s !== ''),
  );
}

function runSaidLine(b: Body): Said {
  const said = Object.keys(b).flatMap((k) => RUN_SAID[k] ?? []);
  const what = `Said of a run: ${said.join(', ') || 'what was seen'}`;
  return plain('Run', 'run', what, text(b, 'saw') ? [`Seen: ${text(b, 'saw')}`] : []);
}

function troubleLine(b: Body): Said {
  const n = b['note'] as TroubleNote | { what: 'opened'; symptoms: SymptomId[] };
  if (n.what === 'opened')
    return plain('Search', 'fault', noteWords({ what: 'seen', symptoms: n.symptoms }));
  const words = n.what === 'seen' || n.words === '' ? [] : [n.words];
  const solved = n.what === 'closed' && n.outcome === 'solved';
  return plain('Search', solved ? 'outcome' : 'fault', noteWords(n), words);
}

function priceLine(b: Body): Said {
  const paid = money({ minor: Number(b['minor']), currency: text(b, 'currency') });
  const more = b['condition'] ? [text(b, 'condition')] : [];
  return plain('Price', 'price', `${text(b, 'part')}: paid ${paid}`, more);
}

/** Words of each kind of fact. */
const SAID: Partial<Record<SetupEvent['kind'], (b: Body, title: (id: StepId) => string) => Said>> =
  {
    created: (b) => plain('Start', 'start', `Started as "${text(b, 'name')}"`),
    cloned: (b) => plain('Start', 'start', `Copied from "${text(b, 'from')}"`),
    state: (b) => plain('State', 'start', `From ${text(b, 'from')} to ${text(b, 'to')}`),
    parts: partsLine,
    outcome: outcomeLine,
    reading: readingLine,
    version: versionLine,
    attempt: attemptLine,
    step: stepLine,
    ended: endedLine,
    struck: (b) => plain('Deleted', 'note', `Deleted: ${text(b, 'reason')}`),
    good: goodLine,
    run: (b) => plain('Run', 'run', runWords(b)),
    used: usedLine,
    'run-said': runSaidLine,
    trouble: troubleLine,
    price: priceLine,
    note: (b) =>
      plain(
        'Note',
        'note',
        text(b, 'text'),
        text(b, 'photo') ? [`Photo: ${text(b, 'photo')}`] : [],
      ),
  };

/** One fact of the record in words. `title` names a step. */
export function lineOf(e: SetupEvent, title: (id: StepId) => string): Said {
  return SAID[e.kind]?.(e.body, title) ?? plain('Name', 'note', text(e.body, 'text'));
}

/** The record as lines, newest first; what corrects a fact or takes it back stands under it. */
export function linesOf(events: readonly SetupEvent[], title: (id: StepId) => string): Line[] {
  const all = events.map((event): Line => ({ event, ...lineOf(event, title), corrections: [] }));
  const byId = new Map(all.map((l) => [l.event.id, l]));
  for (const l of all) if (l.event.corrects) byId.get(l.event.corrects)?.corrections.push(l);
  return all.filter((l) => !l.event.corrects || !byId.has(l.event.corrects));
}
