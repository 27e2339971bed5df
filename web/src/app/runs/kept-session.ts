import { inject, Injectable } from '@angular/core';
import { del, get, set } from 'idb-keyval';
import * as z from 'zod';
import { Session } from '../platform/api/session';
import type { SessionValues } from './session-rows';

/** A session that is not stored yet: its files, and what was said of each by its place. */
export interface HalfSession {
  readonly setupId: string;
  readonly at: string;
  readonly files: readonly File[];
  readonly said: readonly Partial<SessionValues>[];
}

const text = z.string();
const said = z.strictObject({
  title: text.optional(),
  resolution: text.optional(),
  preset: text.optional(),
  setupId: text.optional(),
  screenPath: z.enum(['panel', 'outside', 'none']).nullable().optional(),
  powerMode: text.optional(),
});
const kept = z.object({
  setupId: text,
  at: text,
  files: z.array(z.instanceof(File)).min(1),
  said: z.array(said),
});

/**
 * Keeps a session that is half done in this browser, for the member who brought it, so that a closed page loses nothing. Without room or
 * right, it is not kept.
 */
@Injectable({ providedIn: 'root' })
export class KeptSession {
  readonly #session = inject(Session);

  #key(): string {
    return `half-session ${this.#session.member()?.id ?? ''}`;
  }

  async read(): Promise<HalfSession | null> {
    try {
      const found = kept.safeParse(await get(this.#key()));
      return found.success ? (found.data as HalfSession) : null;
    } catch {
      // A browser that keeps nothing, as in a private window.
      return null;
    }
  }

  async keep(session: HalfSession): Promise<void> {
    try {
      await set(this.#key(), session);
    } catch {
      // No room, or no right to keep anything: the session lives as long as its page.
    }
  }

  async drop(): Promise<void> {
    try {
      await del(this.#key());
    } catch {
      // Nothing was kept where nothing can be.
    }
  }
}
