import type { Limits } from "./process-limits.ts";

/** One sort of heavy work: how many of it run at once, and the module whose `run` does it, loaded where it is done. */
export interface Task {
  processes: number;
  /** What one of it may take. */
  limits: Limits;
  load: () => Promise<{ run: (input: never, tell: (event: TaskEvent) => void) => unknown }>;
}

/** What a process tells while it is at a task. */
export interface TaskEvent {
  /** Of the first event: the process that has begun. */
  pid?: number;
  done?: number;
  total?: number;
  message?: string;
}

/** What came of a task; an error that was foreseen keeps its code, and the field that it is about. */
export type TaskResult =
  | { ok: true; output: unknown }
  | { ok: false; foreseen: true; code: string; message: string; field: string | undefined }
  | { ok: false; foreseen: false; message: string };
