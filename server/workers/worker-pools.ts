import { Injectable, type OnApplicationShutdown } from "@nestjs/common";
import { Lane } from "./lane.ts";
import { isLong } from "./long-texts.ts";
import type { TaskEvent } from "./task.ts";
import { tasks, type TaskName, type Tasks } from "./tasks.ts";

/** How much one lane has to do. */
export interface LaneLoad {
  lane: string;
  processes: number;
  running: number;
  waiting: number;
}

/** Does the heavy work in child processes, so that the server goes on answering. */
@Injectable()
export class WorkerPools implements OnApplicationShutdown {
  private readonly lanes = new Map(
    Object.entries(tasks).map(([name, { processes, limits }]) => [name, new Lane(processes, limits)]),
  );

  /** Does a task in its lane; see {@link Lane.run}. */
  run<K extends TaskName>(
    name: K,
    input: Tasks[K]["input"],
    signal?: AbortSignal,
    tell?: (event: TaskEvent) => void,
  ): Promise<Tasks[K]["output"]> {
    return this.lanes.get(name)!.run(name, input, signal, tell);
  }

  /**
   * Does a task on texts of so many letters in all: on long ones in its lane, on short ones here and now, since the
   * way to a process and back costs more than they do.
   */
  async runBySize<K extends TaskName>(
    name: K,
    letters: number,
    input: Tasks[K]["input"],
  ): Promise<Tasks[K]["output"]> {
    if (isLong(letters)) return this.run(name, input);
    const { run } = (await tasks[name].load()) as unknown as {
      run: (input: Tasks[K]["input"]) => Tasks[K]["output"];
    };
    return run(input);
  }

  /** How much each lane has to do at this moment. */
  load(): LaneLoad[] {
    return [...this.lanes].map(([lane, { processes, running, waiting }]) => ({
      lane,
      processes,
      running,
      waiting,
    }));
  }

  /** Ends all processes. */
  async onApplicationShutdown(): Promise<void> {
    await Promise.all([...this.lanes.values()].map((lane) => lane.end()));
  }
}
