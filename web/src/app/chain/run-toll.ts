import { Injectable, signal } from '@angular/core';
import type { MeasuredValue } from '@ruddy/core/runs';

/** What the strip says of the run that is looked at: the toll of the link, and of the way back to the panel. */
export interface ShownToll {
  readonly title: string;
  /** Null: no pair of runs tells it. */
  readonly link: (MeasuredValue & { readonly interval: boolean }) | null;
  readonly back: MeasuredValue | null;
}

/** The toll the page of runs shows, for the strip above it. */
@Injectable()
export class RunToll {
  readonly shown = signal<ShownToll | null>(null);
}
