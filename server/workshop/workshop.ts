import { fork, type ChildProcess } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { Injectable, type OnApplicationShutdown } from "@nestjs/common";
import { Problem } from "../errors/problem.ts";
import type { TaskName, TaskResult, Tasks } from "./tasks.ts";

/** After this long without work a process ends, and gives its memory back. */
const idleMs = 5 * 60_000;

/**
 * Does the heavy work in child processes, so that the server goes on answering: one process keeps the
 * typesetter and its memory of the last book, one sets the chapter that is being written, another does everything else. A cancelled task's process
 * is ended, since native code cannot be stopped otherwise.
 */
@Injectable()
export class Workshop implements OnApplicationShutdown {
  private readonly typesetting = new Bench();
  private readonly proofing = new Bench();
  private readonly other = new Bench();

  run<K extends TaskName>(
    name: K,
    input: Tasks[K]["input"],
    signal?: AbortSignal,
  ): Promise<Tasks[K]["output"]> {
    const bench = name === "writePdf" ? this.typesetting : name === "setChapter" ? this.proofing : this.other;
    return bench.run(name, input, signal) as Promise<Tasks[K]["output"]>;
  }

  onApplicationShutdown(): void {
    this.typesetting.end();
    this.proofing.end();
    this.other.end();
  }
}

/** One child process and the tasks that wait for it. */
class Bench {
  private child: ChildProcess | null = null;
  private last: Promise<unknown> = Promise.resolve();
  private idle: NodeJS.Timeout | undefined;

  run(name: TaskName, input: unknown, signal?: AbortSignal): Promise<unknown> {
    const result = this.last.then(() => {
      signal?.throwIfAborted();
      return this.ask(name, input, signal);
    });
    this.last = result.catch(() => undefined);
    return result;
  }

  end(): void {
    clearTimeout(this.idle);
    this.child?.kill("SIGKILL");
    this.child = null;
  }

  private ask(name: TaskName, input: unknown, signal?: AbortSignal): Promise<unknown> {
    clearTimeout(this.idle);
    const child = (this.child ??= startChild());
    return new Promise((resolve, reject) => {
      const settle = (): void => {
        child.off("message", onMessage).off("exit", onExit);
        signal?.removeEventListener("abort", onAbort);
        this.idle = setTimeout(() => this.end(), idleMs);
        this.idle.unref();
      };
      const onMessage = (result: TaskResult): void => {
        settle();
        if (result.ok) resolve(result.output);
        else
          reject(result.expected ? new Problem(422, result.code, result.message) : new Error(result.message));
      };
      const onExit = (code: number | null): void => {
        settle();
        this.child = null;
        reject(
          new Error(
            `The work ended too early (${code === null ? "stopped" : `code ${code}`}), perhaps for want of memory.`,
          ),
        );
      };
      const onAbort = (): void => {
        settle();
        this.end();
        reject(signal!.reason as Error);
      };
      child.on("message", onMessage).on("exit", onExit);
      signal?.addEventListener("abort", onAbort);
      child.send({ name, input });
    });
  }
}

function startChild(): ChildProcess {
  const beside = join(import.meta.dirname, "workshop-process.js");
  // The tests run the sources; the process that they start is the built one.
  const built = join(import.meta.dirname, "../dist/workshop/workshop-process.js");
  const child = fork(existsSync(beside) ? beside : built, { serialization: "advanced", execArgv: [] });
  // A process that waits for work does not keep the server from ending.
  child.unref();
  child.channel?.unref();
  return child;
}
