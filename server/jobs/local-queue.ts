import type { Piece, WorkQueue } from "./work-queue.ts";

/** Hands the pieces of work out within this process. What waits is lost with it, and found again in the database. */
export class LocalQueue implements WorkQueue {
  /** By priority; within one in the order of adding. */
  private readonly waiting = new Map<number, Piece[]>();
  private readonly known = new Set<string>();
  private readonly running = new Set<Promise<void>>();
  private work: ((piece: Piece) => Promise<void>) | null = null;

  constructor(private readonly concurrency: number) {}

  start(work: (piece: Piece) => Promise<void>): void {
    this.work = work;
    this.next();
  }

  async add(pieces: readonly Piece[]): Promise<void> {
    for (const piece of pieces) {
      const key = `${piece.jobId} ${piece.part}`;
      if (this.known.has(key)) continue;
      this.known.add(key);
      const list = this.waiting.get(piece.priority);
      if (list) list.push(piece);
      else this.waiting.set(piece.priority, [piece]);
    }
    this.next();
  }

  async close(): Promise<void> {
    this.work = null;
    await Promise.allSettled(this.running);
  }

  private next(): void {
    while (this.work && this.running.size < this.concurrency) {
      const piece = this.take();
      if (!piece) return;
      const ended = this.work(piece).finally(() => {
        this.known.delete(`${piece.jobId} ${piece.part}`);
        this.running.delete(ended);
        this.next();
      });
      // Whoever does the work tells its own failures.
      ended.catch(() => undefined);
      this.running.add(ended);
    }
  }

  private take(): Piece | undefined {
    if (this.waiting.size === 0) return undefined;
    const first = Math.min(...this.waiting.keys());
    const list = this.waiting.get(first)!;
    const piece = list.shift();
    if (list.length === 0) this.waiting.delete(first);
    return piece;
  }
}
