import { FinishedPage } from "@vennet/core/finished/pdf/finished-page";
import { readFinishedPdf, type FinishedFacts } from "@vennet/core/finished/pdf/read-finished";
import { derivePart, type DerivedChapter } from "../chapters/derived-chapter.ts";
import type { TaskEvent } from "../workers/task.ts";

/** A finished file as it is kept: what is known of it, and its pages. */
interface ReadFile {
  facts: FinishedFacts;
  pages: DerivedChapter[];
}

/**
 * Reads every link of a PDF.
 * @throws FinishedError where it cannot be read
 */
export async function run(
  { bytes }: { bytes: Uint8Array },
  tell: (event: TaskEvent) => void,
): Promise<ReadFile> {
  const { facts, pages } = await readFinishedPdf(bytes, (page, of) => {
    if (page % 20 === 0 || page === of)
      tell({ done: Math.round((page / of) * 100), message: `Reading the links: page ${page} of ${of}` });
  });
  return { facts, pages: pages.map((page) => derivePart(new FinishedPage(page))) };
}
