import os from "node:os";
import { CodedError } from "@vennet/core/errors";
import workerpool from "workerpool";
import type { TaskEvent, TaskResult } from "./task.ts";
import { tasks, type TaskName, type Tasks } from "./tasks.ts";

// The child process that does the heavy work, one task after the other, as its lane sends them.

// Behind the server itself, which answers authors, where the machine has too little for both.
const niceness = 10;

os.setPriority(niceness);

// A server that is gone wants no answer. What native code is at ends with this process when it comes back.
process.on("disconnect", () => process.exit(0));
process.on("error", () => process.exit(0));

// The result of a task is waited for. What a library leaves behind beside it, as pdf.js does with some damaged files, is told
// and ends nothing.
process.on("unhandledRejection", (reason) => {
  process.emitWarning(
    `A library left a failure behind: ${String((reason as Error | null)?.message ?? reason)}`,
  );
});

const tell = (event: TaskEvent): void => workerpool.workerEmit(event);

async function run<K extends TaskName>(name: K, input: Tasks[K]["input"]): Promise<TaskResult> {
  tell({ pid: process.pid });
  try {
    const task = (await tasks[name].load()) as { run: (input: unknown, tell: unknown) => unknown };
    return { ok: true, output: await task.run(input, tell) };
  } catch (error) {
    if (error instanceof CodedError) {
      const { code, message, field } = error;
      return { ok: false, foreseen: true, code, message, field };
    }
    const { stack, message } = error as Error;
    return { ok: false, foreseen: false, message: stack ?? message };
  }
}

workerpool.worker({ run });
