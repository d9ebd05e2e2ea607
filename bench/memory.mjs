import { readdirSync, readFileSync } from "node:fs";

/** The most memory that a process has held so far, in megabytes. */
export function peakMemory(pid) {
  const status = readFileSync(`/proc/${pid}/status`, "utf8");
  return Math.round(Number(/VmHWM:\s+(\d+)/.exec(status)[1]) / 1024);
}

/** The memory that a process holds now, in megabytes. */
export function memoryNow(pid) {
  const status = readFileSync(`/proc/${pid}/status`, "utf8");
  return Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)[1]) / 1024);
}

/** The peak memory of a process and of all that it has started, added up. */
export function peakMemoryOfTree(root) {
  const parents = new Map();
  for (const name of readdirSync("/proc").filter((entry) => /^\d+$/.test(entry))) {
    try {
      const stat = readFileSync(`/proc/${name}/stat`, "utf8");
      parents.set(Number(name), Number(stat.slice(stat.lastIndexOf(")") + 2).split(" ")[1]));
    } catch {
      // It ended while we looked.
    }
  }
  const belongs = (pid) =>
    pid === root || (parents.has(pid) && parents.get(pid) > 1 && belongs(parents.get(pid)));
  let sum = 0;
  for (const pid of parents.keys()) {
    try {
      if (belongs(pid)) sum += peakMemory(pid);
    } catch {
      // As above.
    }
  }
  return sum;
}
