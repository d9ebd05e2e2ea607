interface Waiting {
  /** By which it is told who has waited longest. */
  number: number;
  left: number;
  take: () => void;
}

/**
 * A number of places for many owners. Who waits gets the next free one, the owner that holds the fewest first; and a
 * share is each owner's at once, whatever others hold. Of one owner's every other place goes to where the most is left, so that
 * what takes longest is not done last, and those between to who has waited longest, so that nobody is kept out.
 */
export class FairPlaces {
  private taken = 0;
  private readonly held = new Map<string, number>();
  /** By their owners, who has waited longest first: thousands wait, of few owners. */
  private readonly waiting = new Map<string, Set<Waiting>>();
  private numbers = 0;
  private isForLongest = false;

  /**
   * @param count how many there are
   * @param share how many an owner may have beyond them, as long as it has no more
   */
  constructor(
    private readonly count: number,
    private readonly share = 0,
  ) {}

  get isEmpty(): boolean {
    return this.taken === 0 && this.waiting.size === 0;
  }

  /**
   * Waits for a place, and gives the function that leaves it.
   * @param left how much there is to do where this one is for
   */
  async enter(owner: string, signal: AbortSignal, left = 0): Promise<() => void> {
    signal.throwIfAborted();
    if (this.taken < this.count || this.heldBy(owner) < this.share) this.take(owner);
    else await this.turn(owner, left, signal);
    let isIn = true;
    return () => {
      if (!isIn) return;
      isIn = false;
      this.leave(owner);
    };
  }

  private heldBy(owner: string): number {
    return this.held.get(owner) ?? 0;
  }

  private take(owner: string): void {
    this.taken++;
    this.held.set(owner, this.heldBy(owner) + 1);
  }

  private leave(owner: string): void {
    this.taken--;
    const left = this.heldBy(owner) - 1;
    if (left === 0) this.held.delete(owner);
    else this.held.set(owner, left);
    const next = this.nextOwner();
    if (next && (this.taken < this.count || this.heldBy(next) < this.share)) this.nextOf(next).take();
  }

  /** Of the owners that wait, one that holds the fewest; of several, the one that waits longest. */
  private nextOwner(): string | undefined {
    let next: string | undefined;
    let fewest = Infinity;
    let first = Infinity;
    for (const [owner, waiting] of this.waiting) {
      const held = this.heldBy(owner);
      const { number } = firstOf(waiting);
      if (held > fewest || (held === fewest && number > first)) continue;
      [next, fewest, first] = [owner, held, number];
    }
    return next;
  }

  private nextOf(owner: string): Waiting {
    const waiting = this.waiting.get(owner)!;
    let next = firstOf(waiting);
    this.isForLongest = !this.isForLongest;
    if (this.isForLongest) for (const one of waiting) if (one.left > next.left) next = one;
    return next;
  }

  private turn(owner: string, left: number, signal: AbortSignal): Promise<void> {
    return new Promise((resolve, reject) => {
      const waiting = this.waiting.get(owner) ?? new Set();
      this.waiting.set(owner, waiting);
      const end = (): void => {
        waiting.delete(one);
        if (waiting.size === 0) this.waiting.delete(owner);
        signal.removeEventListener("abort", giveUp);
      };
      const giveUp = (): void => {
        end();
        reject(signal.reason as Error);
      };
      const one: Waiting = {
        number: this.numbers++,
        left,
        take: () => {
          end();
          this.take(owner);
          resolve();
        },
      };
      waiting.add(one);
      signal.addEventListener("abort", giveUp, { once: true });
    });
  }
}

/** Who has waited longest; somebody waits in every set that is kept. */
function firstOf(waiting: ReadonlySet<Waiting>): Waiting {
  return waiting.values().next().value!;
}
