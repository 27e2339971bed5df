/** A row of numbers that grows: appending is cheap, and what is read out is as long as what went in. */
export class Grow {
  #data: Float64Array;
  length = 0;

  constructor(room = 4096) {
    this.#data = new Float64Array(room);
  }

  push(v: number): void {
    if (this.length === this.#data.length) {
      const next = new Float64Array(this.#data.length * 2);
      next.set(this.#data);
      this.#data = next;
    }
    this.#data[this.length++] = v;
  }

  at(i: number): number {
    return this.#data[i] as number;
  }

  /** What went in, without a copy; good until the next push. */
  view(): Float64Array {
    return this.#data.subarray(0, this.length);
  }
}
