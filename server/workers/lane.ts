import { existsSync } from "node:fs";
import { join } from "node:path";
import { CodedError } from "@vennet/core/errors";
import pLimit, { type LimitFunction } from "p-limit";
import workerpool from "workerpool";
import { watchLimits, type Limits, type WorkerLimitError } from "./process-limits.ts";
import type { TaskEvent, TaskResult } from "./task.ts";
import type { TaskName, Tasks } from "./tasks.ts";

/** After this long without work the processes of a lane end, and give their memory back. */
const idleMs = 5 * 60_000;
/** How long a process that is to end is waited for before it is killed: it may be in native code. */
const endMs = 50;
const beginsAtMost = 5;

/** A process ended in the middle of a task: killed, or out of memory. */
export class WorkerEndedError extends CodedError {
  constructor() {
    super(
      "worker-ended",
      "The process that did this work ended too early, perhaps for want of memory. Nothing else was lost; try again.",
    );
  }
}

/** Some worker processes of one purpose, and the tasks that wait for them, first come, first served. */
export class Lane {
  private readonly pool: workerpool.Pool;
  /** Tasks wait for their turn here: the pool's own queue stands still when a process of its dies. */
  private readonly inTurn: LimitFunction;
  private idle: NodeJS.Timeout | undefined;

  /**
   * @param processes how many of its tasks run at once
   * @param limits what each of them may take
   */
  constructor(
    readonly processes: number,
    private readonly limits: Limits,
  ) {
    const beside = join(import.meta.dirname, "worker-process.js");
    // The tests run the sources; the process that they start is the built one.
    const built = join(import.meta.dirname, "../bundle/worker-process.js");
    this.inTurn = pLimit(processes);
    this.pool = workerpool.pool(existsSync(beside) ? beside : built, {
      workerType: "process",
      maxWorkers: processes,
      workerTerminateTimeout: endMs,
      forkOpts: { serialization: "advanced", execArgv: [], env: { ...process.env, NODE_OPTIONS: "" } },
    });
  }

  /**
   * Does a task. When the signal aborts, its process is ended, since native code cannot be stopped otherwise.
   * @throws the error of the task; WorkerEndedError where its process ended in the middle of it; WorkerLimitError
   * where it took more than it may
   */
  async run<K extends TaskName>(
    name: K,
    input: Tasks[K]["input"],
    signal?: AbortSignal,
    tell?: (event: TaskEvent) => void,
  ): Promise<Tasks[K]["output"]> {
    signal?.throwIfAborted();
    // A task that is given up while it waits for its turn is given up at once.
    const givenUp = new Promise<never>((_, reject) => {
      signal?.addEventListener("abort", () => reject(signal.reason as Error), { once: true });
    });
    const done = this.inTurn(() => this.begin(name, input, signal, tell));
    return (await Promise.race([done, givenUp])) as Tasks[K]["output"];
  }

  private async begin(
    name: TaskName,
    input: unknown,
    signal?: AbortSignal,
    tell?: (event: TaskEvent) => void,
  ): Promise<unknown> {
    clearTimeout(this.idle);
    try {
      for (let tries = 1; ; tries++) {
        signal?.throwIfAborted();
        let begun = false;
        let exceeded: WorkerLimitError | undefined;
        let endWatch = (): void => undefined;
        const promise = this.pool.exec("run", [name, input], {
          on: (event: TaskEvent) => {
            if (event.pid === undefined) return tell?.(event);
            begun = true;
            endWatch = watchLimits(event.pid, this.limits, (error) => {
              exceeded = error;
              void promise.cancel();
            });
          },
        });
        const result = await this.settled(promise, signal).finally(() => endWatch());
        if (exceeded) throw exceeded;
        if (result !== "ended") return outputOf(result);
        // A process that had died idle took the task with it before it was begun.
        if (begun || tries === beginsAtMost) throw new WorkerEndedError();
      }
    } finally {
      if (this.inTurn.activeCount <= 1 && this.inTurn.pendingCount === 0) this.endWhenIdle();
    }
  }

  get running(): number {
    return this.inTurn.activeCount;
  }

  get waiting(): number {
    return this.inTurn.pendingCount;
  }

  /** Ends all processes, and whatever they are at. */
  async end(): Promise<void> {
    clearTimeout(this.idle);
    await this.pool.terminate(true).catch(() => undefined);
  }

  /** The result of a task, or that its process ended; its process is ended when the signal aborts. */
  private async settled(
    promise: workerpool.Promise<unknown>,
    signal: AbortSignal | undefined,
  ): Promise<TaskResult | "ended"> {
    const abort = (): void => void promise.cancel();
    signal?.addEventListener("abort", abort, { once: true });
    try {
      return (await promise) as TaskResult;
    } catch {
      signal?.throwIfAborted();
      // What tasks throw comes as a result; what the pool rejects with is about its processes.
      return "ended";
    } finally {
      signal?.removeEventListener("abort", abort);
    }
  }

  private endWhenIdle(): void {
    this.idle = setTimeout(() => void this.pool.terminate(), idleMs);
    this.idle.unref();
  }
}

function outputOf(result: TaskResult): unknown {
  if (result.ok) return result.output;
  if (result.foreseen) throw new CodedError(result.code, result.message, result.field);
  throw new Error(result.message);
}
