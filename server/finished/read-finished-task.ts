import type { FinishedFacts } from "@vennet/core/finished/facts";
import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import { readFinished } from "@vennet/core/finished/work-on-file";
import { derivePart, type DerivedChapter } from "../chapters/derived-chapter.ts";
import type { TaskEvent } from "../workers/task.ts";

/** A finished file as it is kept: what is known of it, and its pages. */
interface ReadFile {
  facts: FinishedFacts;
  pages: DerivedChapter[];
}

/**
 * Reads every link of a finished file.
 * @throws FinishedError or ImportError where it cannot be read
 */
export async function run(
  { format, bytes, password }: { format: FinishedFormat; bytes: Uint8Array; password: string },
  tell: (event: TaskEvent) => void,
): Promise<ReadFile> {
  const { facts, parts } = await readFinished(
    format,
    bytes,
    (page, of) => {
      if (page % 20 === 0 || page === of)
        tell({ done: Math.round((page / of) * 100), message: `Reading the links: page ${page} of ${of}` });
    },
    password,
  );
  return { facts, pages: parts.map(derivePart) };
}
