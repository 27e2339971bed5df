import type { AgainstClock } from './types';

/** A clock that jumps on by this much more than the frame beside it lasts has a gap: rows are missing. */
const GAP_MS = 500;

/** Holds the clock of a file against its frame times while it is read. */
export class ClockCheck {
  #clockMs = 0;
  #framesMs = 0;
  #gaps = 0;
  #gapLine: number | null = null;
  #rows = 0;

  /**
   * Takes one row.
   *
   * @param stepMs step of the clock since the row before, ms
   * @param frameMs time of the frame, ms
   * @param line line of the row
   */
  row(stepMs: number, frameMs: number, line: number): void {
    if (Number.isNaN(stepMs) || Number.isNaN(frameMs)) return;
    this.#rows++;
    this.#clockMs += stepMs;
    this.#framesMs += frameMs;
    // A clock in whole seconds steps by one now and then.
    if (stepMs < frameMs + GAP_MS || stepMs <= 1000) return;
    this.#gaps++;
    this.#gapLine ??= line;
  }

  /** What was found; null without rows that have both. */
  end(): AgainstClock | null {
    if (this.#rows === 0) return null;
    return {
      clockMs: this.#clockMs,
      framesMs: this.#framesMs,
      gaps: this.#gaps,
      gapLine: this.#gapLine,
    };
  }
}
