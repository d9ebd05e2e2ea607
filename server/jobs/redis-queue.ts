import { Logger } from "@nestjs/common";
import { Queue, Worker } from "bullmq";
import type { Piece, WorkQueue } from "./work-queue.ts";

type PieceData = Omit<Piece, "priority">;

/**
 * Hands the pieces of work out to all servers that share one Redis. A piece whose server has died is handed
 * to another after a while. Priorities count from 0 on.
 */
export class RedisQueue implements WorkQueue {
  private readonly logger = new Logger(RedisQueue.name);
  private readonly queue: Queue<PieceData>;
  private worker: Worker<PieceData> | null = null;

  constructor(
    private readonly name: string,
    private readonly concurrency: number,
    private readonly url: string,
    private readonly takeOverMs: number,
  ) {
    this.queue = new Queue(name, { connection: this.connection() });
    this.queue.on("error", (error) => this.complain(error));
  }

  start(work: (piece: Piece) => Promise<void>): void {
    this.worker = new Worker<PieceData>(this.name, (job) => work({ ...job.data, priority: job.priority }), {
      connection: this.connection(),
      concurrency: this.concurrency,
      lockDuration: this.takeOverMs,
      stalledInterval: this.takeOverMs,
      maxStalledCount: 100,
      drainDelay: 1,
    });
    this.worker.on("error", (error) => this.complain(error));
  }

  async add(pieces: readonly Piece[]): Promise<void> {
    await this.queue.addBulk(
      pieces.map(({ jobId, part, owner, priority }) => ({
        name: "piece",
        data: { jobId, part, owner },
        opts: {
          // The same piece is not added while it waits or is under way.
          jobId: `${jobId}~${part.replaceAll(":", "_")}`,
          priority,
          // A piece fails only when its server stops; another one takes it then.
          attempts: 1000,
          removeOnComplete: true,
          removeOnFail: true,
        },
      })),
    );
  }

  async close(): Promise<void> {
    await this.worker?.close();
    await this.queue.close();
  }

  private connection() {
    const { hostname, port, username, password, pathname, protocol } = new URL(this.url);
    return {
      host: hostname,
      port: Number(port || 6379),
      ...(username ? { username: decodeURIComponent(username) } : {}),
      ...(password ? { password: decodeURIComponent(password) } : {}),
      db: Number(pathname.slice(1) || 0),
      ...(protocol === "rediss:" ? { tls: {} } : {}),
      maxRetriesPerRequest: null,
    };
  }

  private complain(error: Error): void {
    this.logger.error(`Redis: ${error.message}`);
  }
}
