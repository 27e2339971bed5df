import { Injectable, signal } from '@angular/core';
import type { Banded } from '@ruddy/core/runs';

/** What the strip says of the run that is looked at, ms a frame: the overhead of the link, and of the way back to the panel. */
export interface ShownOverhead {
  readonly title: string;
  /** Null: not computed, or no link is crossed. */
  readonly link: Banded | null;
  readonly back: Banded | null;
}

/** The link overhead the page of runs shows, for the strip above it. */
@Injectable()
export class RunOverhead {
  readonly shown = signal<ShownOverhead | null>(null);
}
