import { Injectable, signal } from '@angular/core';
import type { Place } from '@ruddy/core/troubleshoot';

/** What the strip says of a search: suspicion of each bank and pier, elsewhere too, and the likeliest cause in words. */
export interface ShownPosterior {
  /** Shares of 1. */
  readonly places: Readonly<Record<Place, number>>;
  readonly cause: string;
}

/** The suspicion the page of a search shows, for the strip above it. */
@Injectable()
export class Posterior {
  readonly shown = signal<ShownPosterior | null>(null);
}
