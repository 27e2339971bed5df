import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Outcome } from '@ruddy/core/base';
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
  Summary,
  TouchedRow,
} from '@ruddy/core/plan/contract';
import type { FramesAsked } from '@ruddy/core/runs/contract';
import type { Setup, SetupPatch, SetupSlots, SetupState } from '@ruddy/core/setups/contract';
import { Api } from '../platform/api/api';

export interface Judgement {
  sentence: string;
  chain: Chain;
  evaluation: Evaluation;
}

export interface SetupFilter {
  q?: string;
  state?: SetupState;
  retired?: boolean;
}

export type CompatFilter = Partial<Omit<CompatQuery, 'cursor' | 'limit'>>;

export interface OutcomeFilter {
  setupId?: string;
  chain?: string;
  limit?: number;
}

/** An outcome as the form sends it. */
export interface NewOutcome {
  id: string;
  outcome: Outcome;
  happenedOn: string;
  versions: Record<string, string>;
  symptoms: string[];
  fixes: string[];
  provenance: string;
  confidence: number;
  note: string;
  corrects: string | null;
}

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
  // The very piece that stands there counts, where one is named: it may differ from its part.
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

/** Setups, their judgement, their record and the log. */
@Injectable({ providedIn: 'root' })
export class SetupsData {
  readonly #api = inject(Api);

  list(filter: SetupFilter & { cursor?: string; limit?: number }): Observable<Page<SetupRow>> {
    return this.#api.get('/setups', { ...filter });
  }

  summary(): Observable<Summary> {
    return this.#api.get('/setups/summary');
  }

  one(id: string): Observable<Setup> {
    return this.#api.get(`/setups/${id}`);
  }

  create(body: { id: string; name: string; slots?: SetupSlots }): Observable<Setup> {
    return this.#api.post('/setups', body);
  }

  clone(id: string, body: { id: string; name: string }): Observable<Setup> {
    return this.#api.post(`/setups/${id}/clone`, body);
  }

  patch(id: string, patch: SetupPatch, rev: number): Observable<Setup> {
    return this.#api.patch(`/setups/${id}`, patch, rev);
  }

  /** Judge a choice of parts without storing it; the log's outcomes of the same chain come along. */
  judge(fields: Chosen): Observable<Judgement> {
    return this.#api.post('/evaluate', {
      chain: chainOf(fields),
      evidence: 'log',
      frames: framesOf(fields),
    });
  }

  /** The same with another card, for a dock that serves several. */
  judgeWithCard(fields: Chosen, card: string): Observable<Judgement> {
    const patch = { card: { id: card } };
    return this.#api.post('/evaluate', {
      chain: chainOf(fields),
      patch,
      evidence: 'log',
      frames: framesOf(fields),
    });
  }

  /** Changes that take a finding away, best first. */
  fixes(
    fields: Chosen,
    finding: { code: FindingCode; about?: string },
  ): Observable<{ items: FixRow[]; tried: number }> {
    return this.#api.post('/fixes', { chain: chainOf(fields), ...finding });
  }

  /** Setups a release touches. */
  touched(release: string): Observable<{ items: TouchedRow[] }> {
    return this.#api.get(`/releases/${release}/setups`);
  }

  markInstalled(setup: string, body: InstalledBody, rev: number): Observable<Setup> {
    return this.#api.post(`/setups/${setup}/installed`, body, rev);
  }

  record(id: string): Observable<{ items: SetupEvent[] }> {
    return this.#api.get(`/setups/${id}/record`);
  }

  addNote(id: string, note: NoteBody): Observable<{ items: SetupEvent[] }> {
    return this.#api.post(`/setups/${id}/notes`, note);
  }

  addOutcome(id: string, body: NewOutcome): Observable<OutcomeEntry> {
    return this.#api.post(`/setups/${id}/outcomes`, body);
  }

  readings(id: string): Observable<{ items: ReadingEntry[] }> {
    return this.#api.get(`/setups/${id}/readings`);
  }

  addReading(id: string, body: ReadingBody): Observable<{ items: ReadingEntry[] }> {
    return this.#api.post(`/setups/${id}/readings`, body);
  }

  bringUp(id: string): Observable<BringUp> {
    return this.#api.get(`/setups/${id}/bring-up`);
  }

  /** Write something down beside the steps: a try from before, a fact taken back, the last known good. */
  addFact(id: string, kind: 'tries' | 'struck' | 'good', body: object): Observable<BringUp> {
    return this.#api.post(`/setups/${id}/${kind}`, body);
  }

  compatibility(
    filter: CompatFilter & { cursor?: string; limit?: number },
  ): Observable<Page<CompatRow> & { total: number }> {
    return this.#api.get('/compatibility', { ...filter });
  }

  outcomes(filter: OutcomeFilter): Observable<Page<OutcomeEntry>> {
    return this.#api.get('/outcomes', { ...filter });
  }
}
