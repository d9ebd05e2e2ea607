interface Waiting {
  owner: string;
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
  private readonly waiting = new Set<Waiting>();
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
    const next = this.next();
    if (next && (this.taken < this.count || this.heldBy(next.owner) < this.share)) next.take();
  }

  /** Of those who wait, one of the owner that holds the fewest. */
  private next(): Waiting | undefined {
    let first: Waiting | undefined;
    for (const one of this.waiting)
      if (!first || this.heldBy(one.owner) < this.heldBy(first.owner)) first = one;
    this.isForLongest = !this.isForLongest;
    if (!first || !this.isForLongest) return first;
    let longest = first;
    for (const one of this.waiting) if (one.owner === first.owner && one.left > longest.left) longest = one;
    return longest;
  }

  private turn(owner: string, left: number, signal: AbortSignal): Promise<void> {
    return new Promise((resolve, reject) => {
      const end = (): void => {
        this.waiting.delete(one);
        signal.removeEventListener("abort", giveUp);
      };
      const giveUp = (): void => {
        end();
        reject(signal.reason as Error);
      };
      const one: Waiting = {
        owner,
        left,
        take: () => {
          end();
          this.take(owner);
          resolve();
        },
      };
      this.waiting.add(one);
      signal.addEventListener("abort", giveUp, { once: true });
    });
  }
}
