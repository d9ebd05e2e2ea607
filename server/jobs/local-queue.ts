import type { Piece, WorkQueue } from "./work-queue.ts";

interface Waiting {
  piece: Piece;
  /** The how manieth piece it was that came. */
  came: number;
}

/** Hands the pieces of work out within this process. What waits is lost with it, and found again in the database. */
export class LocalQueue implements WorkQueue {
  /** By owner; of each in the order in which they are to be done. */
  private readonly waiting = new Map<string, Waiting[]>();
  private readonly known = new Set<string>();
  private readonly running = new Set<Promise<void>>();
  private readonly runningOf = new Map<string, number>();
  private came = 0;
  private work: ((piece: Piece) => Promise<void>) | null = null;

  /**
   * @param concurrency how many pieces are under way at once
   * @param share how many of an owner are, whatever others have under way
   * @param most how many of an owner are at most
   */
  constructor(
    private readonly concurrency: number,
    private readonly share: number,
    private readonly most: number,
  ) {}

  start(work: (piece: Piece) => Promise<void>): void {
    this.work = work;
    this.next();
  }

  async add(pieces: readonly Piece[]): Promise<void> {
    for (const piece of pieces) {
      const key = keyOf(piece);
      if (this.known.has(key)) continue;
      this.known.add(key);
      const list = this.waiting.get(piece.owner) ?? [];
      this.waiting.set(piece.owner, list);
      // Pieces mostly come in the order in which they are done.
      let at = list.length;
      while (at > 0 && list[at - 1]!.piece.priority > piece.priority) at--;
      list.splice(at, 0, { piece, came: this.came++ });
    }
    this.next();
  }

  async close(): Promise<void> {
    this.work = null;
    await Promise.allSettled(this.running);
  }

  private next(): void {
    while (this.work) {
      const piece = this.take();
      if (!piece) return;
      this.count(piece.owner, 1);
      const ended = this.work(piece).finally(() => {
        this.known.delete(keyOf(piece));
        this.count(piece.owner, -1);
        this.running.delete(ended);
        this.next();
      });
      // Whoever does the work tells its own failures.
      ended.catch(() => undefined);
      this.running.add(ended);
    }
  }

  private count(owner: string, more: number): void {
    const count = (this.runningOf.get(owner) ?? 0) + more;
    if (count === 0) this.runningOf.delete(owner);
    else this.runningOf.set(owner, count);
  }

  private take(): Piece | undefined {
    const hasRoom = this.running.size < this.concurrency;
    let first: Waiting | undefined;
    for (const [owner, [head]] of this.waiting) {
      const running = this.runningOf.get(owner) ?? 0;
      if ((hasRoom ? running < this.most : running < this.share) && (!first || isBefore(head!, first)))
        first = head;
    }
    if (!first) return undefined;
    const list = this.waiting.get(first.piece.owner)!;
    list.shift();
    if (list.length === 0) this.waiting.delete(first.piece.owner);
    return first.piece;
  }
}

function keyOf({ jobId, part }: Piece): string {
  return `${jobId} ${part}`;
}

function isBefore(one: Waiting, other: Waiting): boolean {
  const { priority } = one.piece;
  return priority === other.piece.priority ? one.came < other.came : priority < other.piece.priority;
}
