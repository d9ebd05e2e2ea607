import type { Fault } from "./exported-link.ts";

/** What is wrong with a file, each thing said once for each place. */
export class FaultList {
  readonly all: Fault[] = [];
  private readonly said = new Set<string>();

  tell(where: string, what: string): void {
    const key = `${where}\n${what}`;
    if (this.said.has(key)) return;
    this.said.add(key);
    this.all.push({ where, what });
  }
}
