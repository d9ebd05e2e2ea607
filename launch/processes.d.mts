import type { ChildProcess } from "node:child_process";

/** What the tests written in TypeScript use of the launch's processes. */
export class Processes {
  start(
    name: string,
    command: string,
    args: string[],
    options?: object,
  ): { name: string; child: ChildProcess; exited: Promise<unknown> };
  endAll(): Promise<void>;
}

/** A port of the loopback interface that is free now. */
export function freePort(): Promise<number>;
