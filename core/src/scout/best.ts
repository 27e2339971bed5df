/**
 * The best combination of each dock and card, and of those the best in order. Offered card by card while one dock is worked on; `close`
 * ends that dock. Of two alike the first stays.
 */
export class Best {
  readonly #score: Float64Array;
  readonly #index: Float64Array;
  #kept: { readonly score: number; readonly index: number }[] = [];

  constructor(
    readonly most: number,
    cards: number,
  ) {
    this.#score = new Float64Array(cards).fill(-Infinity);
    this.#index = new Float64Array(cards);
  }

  offer(card: number, score: number, index: number): void {
    if (score <= (this.#score[card] as number)) return;
    this.#score[card] = score;
    this.#index[card] = index;
  }

  close(): void {
    const fresh: { score: number; index: number }[] = [];
    const least = this.#kept.length < this.most ? -Infinity : (this.#kept[this.#kept.length - 1]?.score ?? -Infinity);
    this.#score.forEach((score, c) => {
      if (score > least) fresh.push({ score, index: this.#index[c] as number });
    });
    this.#score.fill(-Infinity);
    if (fresh.length === 0) return;
    this.#kept = [...this.#kept, ...fresh].sort((a, b) => b.score - a.score || a.index - b.index).slice(0, this.most);
  }

  list(): readonly { readonly score: number; readonly index: number }[] {
    return this.#kept;
  }
}
