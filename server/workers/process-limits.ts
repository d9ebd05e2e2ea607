import { readFileSync } from "node:fs";
import { CodedError } from "@vennet/core/errors";

/** What one task may take before its process is ended. */
export interface Limits {
  minutes: number;
  megabytes: number;
}

/** A task took more than it may, and its process was ended; nothing else was lost. */
export class WorkerLimitError extends CodedError {}

const lookPause = 250;
// As the kernel counts in /proc; 4 KB on every machine that this runs on.
const pageBytes = 4096;

/**
 * Watches what a process takes, from now on.
 * @param exceeded is told once what was too much
 * @returns a function that ends the watch
 */
export function watchLimits(
  pid: number,
  { minutes, megabytes }: Limits,
  exceeded: (error: WorkerLimitError) => void,
): () => void {
  const end = (): void => {
    clearTimeout(time);
    clearInterval(memory);
  };
  const tell = (code: string, message: string): void => {
    end();
    exceeded(new WorkerLimitError(code, message));
  };
  const time = setTimeout(
    () =>
      tell(
        "too-long",
        `This took longer than ${told(minutes)} and was given up; nothing else was lost. Try it with fewer chapters at once, or with a smaller file.`,
      ),
    minutes * 60_000,
  );
  const memory = setInterval(() => {
    const used = residentBytes(pid);
    if (used !== null && used > megabytes * 1024 * 1024)
      tell(
        "too-much-memory",
        "This needs more memory than one piece of work may have, and was given up; nothing else was lost. Try it with fewer chapters or smaller pictures at once.",
      );
  }, lookPause);
  return end;
}

function told(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  if (seconds < 60) return `${seconds} seconds`;
  return minutes === 1 ? "a minute" : `${minutes} minutes`;
}

/** The memory that a process has in use; null where that cannot be read, since it has ended or the system tells none. */
function residentBytes(pid: number): number | null {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * pageBytes;
  } catch {
    return null;
  }
}
