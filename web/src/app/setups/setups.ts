import { v7 } from 'uuid';
import { inject, Injectable } from '@angular/core';
import { concat, map, type Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type { BringUp, ReadingBody, ReadingEntry } from '@ruddy/core/bring-up/contract';
import type { Chain } from '@ruddy/core/chain';
import type {
  CompatQuery,
  CompatRow,
  NoteBody,
  OutcomeEntry,
  SetupEvent,
} from '@ruddy/core/compatibility/contract';
import type { Evaluation, FindingCode } from '@ruddy/core/plan';
import type {
  ChainInput,
  FixRow,
  InstalledBody,
  SetupRow,
  SetupSort,
  Summary,
  TouchedRow,
} from '@ruddy/core/plan/contract';
import type { NoForecast, TitleForecast } from '@ruddy/core/runs';
import type { FramesAsked, LinkOverheadRow } from '@ruddy/core/runs/contract';
import type { Setup, SetupPatch, SetupSlots, SetupState } from '@ruddy/core/setups/contract';
import { ApiClient } from '../platform/api/api-client';
import type { RequestTo } from '../platform/api/endpoints';

export interface Judgement {
  sentence: string;
  chain: Chain;
  evaluation: Evaluation;
}

export interface SetupFilter {
  q?: string;
  state?: SetupState;
  retired?: boolean;
  sort?: SetupSort;
  dir?: 'asc' | 'desc';
  cursor?: string;
}

export type CompatFilter = Partial<Omit<CompatQuery, 'cursor' | 'limit'>>;

export interface OutcomeFilter {
  setupId?: string;
  chain?: string;
  limit?: number;
}

/** An outcome as the form sends it. */
export type NewOutcome = RequestTo<'POST /api/setups/:id/outcomes'>['body'];
/** What of a setup decides its judgement. */
export type Chosen = Pick<Setup, 'slots' | 'loads' | 'installed' | 'settings' | 'uses'> &
  Partial<Pick<Setup, 'docked'>>;

const SIZES: Readonly<Record<string, string>> = {
  '1080p': '1920x1080',
  '1440p': '2560x1440',
  '2160p': '3840x2160',
};

/** Frames to expect are asked for at the sizes of the uses, or at 1440p, and on the panel where the picture goes back. */
function framesOf({ uses, settings, docked }: Chosen): FramesAsked {
  const sizes = [
    ...new Set(
      uses.flatMap((u) => (typeof u.resolution === 'string' ? (SIZES[u.resolution] ?? []) : [])),
    ),
  ];
  return {
    resolutions: sizes.length > 0 ? sizes : ['2560x1440'],
    panel: settings.toPanel === 'yes',
    powerMode: docked?.docked.powerMode ?? '',
  };
}

function chainOf({ slots, loads, installed, settings, uses }: Chosen): ChainInput {
  // The very item that stands there counts, where one is named: it may differ from its part.
  const at = (id: string, place: string) => ({
    id,
    ...(slots.items[place] && { piece: slots.items[place] }),
  });
  const byId = (id: string | null, place: string) => (id === null ? null : at(id, place));
  return {
    host: byId(slots.host, 'host'),
    socket: slots.socket,
    path: slots.path?.map((id, i) => at(id, `path/${i}`)) ?? null,
    dock: byId(slots.dock, 'dock'),
    card: byId(slots.card, 'card'),
    supplies: slots.supplies.map(({ part, feeds }, i) => ({
      feeds,
      spec: at(part, `supplies/${i}`),
    })),
    picture: slots.screens.map(({ part, by, plug }, i) => ({
      by,
      plug,
      screen: at(part, `screens/${i}`),
    })),
    system: byId(slots.system, 'system'),
    loads,
    installed,
    settings,
    uses,
  };
}

/** All that frames to expect depend on: edits of anything else ask nothing. */
export interface FramesQuestion {
  readonly chain: ChainInput;
  readonly frames: FramesAsked;
}
export const framesQuestion = (fields: Chosen): FramesQuestion => ({
  chain: chainOf(fields),
  frames: framesOf(fields),
});

/** Frames to expect, title by title and size by size. */
export interface FramesToExpect {
  readonly items: readonly (TitleForecast | NoForecast)[];
  /** The thorough answer is there. */
  readonly refined: boolean;
}

/** Setups, their judgement, their record and the log. */
@Injectable({ providedIn: 'root' })
export class SetupsData {
  readonly #api = inject(ApiClient);

  list(filter: SetupFilter & { cursor?: string; limit?: number }): Observable<Page<SetupRow>> {
    return this.#api.call('GET /api/setups', { query: filter });
  }

  summary(): Observable<Summary> {
    return this.#api.call('GET /api/setups/summary');
  }

  one(id: string): Observable<Setup> {
    return this.#api.call('GET /api/setups/:id', { params: { id } });
  }

  create(body: { id: string; name: string; slots?: SetupSlots }): Observable<Setup> {
    return this.#api.call('POST /api/setups', { body });
  }

  clone(id: string, body: { id: string; name: string }): Observable<Setup> {
    return this.#api.call('POST /api/setups/:id/clone', { params: { id }, body });
  }

  patch(id: string, patch: SetupPatch, rev: number): Observable<Setup> {
    return this.#api.call('PATCH /api/setups/:id', { params: { id }, body: patch, revision: rev });
  }

  /** Judge a choice of parts without storing it; the log's outcomes of the same chain come along. */
  judge(fields: Chosen): Observable<Judgement> {
    return this.#api.call('POST /api/evaluate', {
      body: {
        chain: chainOf(fields),
        evidence: 'log',
      },
    });
  }

  /** Frames to expect of what `framesQuestion` asks: a first answer, then the thorough one. */
  forecasts(question: FramesQuestion): Observable<FramesToExpect> {
    const answer = (refined: boolean) =>
      this.#api
        .call('POST /api/forecasts', { body: { ...question, refined } })
        .pipe(map(({ items }) => ({ items, refined })));
    return concat(answer(false), answer(true));
  }

  /** What the link of each of these setups costs a frame. */
  overheads(setupIds: readonly string[]): Observable<LinkOverheadRow[]> {
    return this.#api
      .call('GET /api/link-overheads', { query: { setupIds: setupIds.join() } })
      .pipe(map((r) => r.items));
  }

  /** The same with another card, for a dock that serves several. */
  judgeWithCard(fields: Chosen, card: string): Observable<Judgement> {
    const patch = { card: { id: card } };
    return this.#api.call('POST /api/evaluate', {
      body: {
        chain: chainOf(fields),
        patch,
        evidence: 'log',
      },
    });
  }

  /** Changes that take a finding away, best first. */
  fixes(
    fields: Chosen,
    finding: { code: FindingCode; about?: string },
  ): Observable<{ items: FixRow[]; tried: number }> {
    return this.#api.call('POST /api/fixes', { body: { chain: chainOf(fields), ...finding } });
  }

  /** Setups a release touches. */
  touched(release: string): Observable<{ items: TouchedRow[] }> {
    return this.#api.call('GET /api/releases/:id/setups', { params: { id: release } });
  }

  markInstalled(setup: string, body: InstalledBody, rev: number): Observable<Setup> {
    return this.#api.call('POST /api/setups/:id/installed', {
      params: { id: setup },
      body,
      revision: rev,
    });
  }

  record(id: string): Observable<{ items: SetupEvent[] }> {
    return this.#api.call('GET /api/setups/:id/record', { params: { id } });
  }

  addNote(id: string, note: NoteBody): Observable<{ items: SetupEvent[] }> {
    return this.#api.call('POST /api/setups/:id/notes', { params: { id }, body: note });
  }

  addOutcome(id: string, body: NewOutcome): Observable<OutcomeEntry> {
    return this.#api.call('POST /api/setups/:id/outcomes', { params: { id }, body });
  }

  readings(id: string): Observable<{ items: ReadingEntry[] }> {
    return this.#api.call('GET /api/setups/:id/readings', { params: { id } });
  }

  addReading(id: string, body: ReadingBody): Observable<{ items: ReadingEntry[] }> {
    return this.#api.call('POST /api/setups/:id/readings', { params: { id }, body });
  }

  bringUp(id: string): Observable<BringUp> {
    return this.#api.call('GET /api/setups/:id/bring-up', { params: { id } });
  }

  /** A try from before, written down beside the steps. */
  addTry(id: string, body: RequestTo<'POST /api/setups/:id/tries'>['body']): Observable<BringUp> {
    return this.#api.call('POST /api/setups/:id/tries', { params: { id }, body });
  }

  /** Takes back what was written down; both stay on record. */
  retract(id: string, fact: { corrects: string; reason: string }): Observable<BringUp> {
    const body = { id: v7(), ...fact };
    return this.#api.call('POST /api/setups/:id/struck', { params: { id }, body });
  }

  /** The setup as it is now is the last known good. */
  markGood(id: string): Observable<BringUp> {
    return this.#api.call('POST /api/setups/:id/good', { params: { id }, body: { id: v7() } });
  }

  compatibility(
    filter: CompatFilter & { cursor?: string; limit?: number },
  ): Observable<Page<CompatRow> & { total: number }> {
    return this.#api.call('GET /api/compatibility', { query: filter });
  }

  outcomes(filter: OutcomeFilter): Observable<Page<OutcomeEntry>> {
    return this.#api.call('GET /api/outcomes', { query: filter });
  }
}
