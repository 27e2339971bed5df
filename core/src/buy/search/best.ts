/**
 * The best combination of each dock and card, and of those the best in order. Offered card by card while one dock is worked on; `close`
 * ends that dock. Of two alike the first stays. What the log says moves a pair in the order and does not choose its path: a pair that was
 * seen to fail on its best path is shown so, and not hidden behind a worse one.
 */
export class Best {
  readonly #score: Float64Array;
  readonly #logged: Float64Array;
  readonly #index: Float64Array;
  #kept: { readonly score: number; readonly index: number }[] = [];

  constructor(
    readonly most: number,
    cards: number,
  ) {
    this.#score = new Float64Array(cards).fill(-Infinity);
    this.#logged = new Float64Array(cards);
    this.#index = new Float64Array(cards);
  }

  offer(card: number, score: number, logged: number, index: number): void {
    if (score <= (this.#score[card] as number)) return;
    this.#score[card] = score;
    this.#logged[card] = logged;
    this.#index[card] = index;
  }

  close(): void {
    const fresh: { score: number; index: number }[] = [];
    const least =
      this.#kept.length < this.most
        ? -Infinity
        : (this.#kept[this.#kept.length - 1]?.score ?? -Infinity);
    this.#score.forEach((score, c) => {
      const whole = score + (this.#logged[c] as number);
      if (whole > least) fresh.push({ score: whole, index: this.#index[c] as number });
    });
    this.#score.fill(-Infinity);
    if (fresh.length === 0) return;
    this.#kept = [...this.#kept, ...fresh]
      .sort((a, b) => b.score - a.score || a.index - b.index)
      .slice(0, this.most);
  }

  list(): readonly { readonly score: number; readonly index: number }[] {
    return this.#kept;
  }
}
