import type { ChildProcess } from "node:child_process";
import type { Processes } from "./processes.mjs";

/** What the tests written in TypeScript use to have a database of their own. */
export function startDatabase(
  processes: Processes,
  folder: string,
  port: number,
): Promise<{ url: string; child: ChildProcess; exited: Promise<unknown> }>;
