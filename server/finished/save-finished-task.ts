import { FinishedPage } from "@vennet/core/finished/pdf/finished-page";
import { readPdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { proveSaved } from "@vennet/core/finished/pdf/prove-saved";
import { saveFinishedPdf } from "@vennet/core/finished/pdf/save-finished";
import { numbersOf, type ProofNumbers } from "@vennet/core/proof/compare";
import type { TaskEvent } from "../workers/task.ts";

interface SavedFile {
  bytes: Uint8Array;
  added: number;
  changed: number;
  removed: number;
  numbers: ProofNumbers;
  /** The whole proof as JSON: nobody on the way looks into it. */
  proof: string;
}

/** How much of a hundred is done when comparing begins, about. */
const saving = 40;

/** Writes the links of a PDF as they are to be, reads the saved file back, and compares. */
export async function run(
  {
    bytes,
    pages,
    files,
  }: {
    bytes: Uint8Array;
    /** Each as JSON. */
    pages: readonly string[];
    /** The names of the files beside it, by their ids. */
    files: ReadonlyMap<string, string>;
  },
  tell: (event: TaskEvent) => void,
): Promise<SavedFile> {
  const asked = pages.map((page) => readPdfPage(JSON.parse(page)));
  tell({ done: 5, message: "Writing the links" });
  const saved = await saveFinishedPdf(bytes, asked, { files });
  const message = "Reading the file back";
  tell({ done: saving, message });
  const places = new Map(
    asked.flatMap((page) => new FinishedPage(page).places().map(({ id, text }) => [id, text] as const)),
  );
  const proof = await proveSaved(bytes, saved.bytes, asked, { files, places }, (page, of) => {
    if (page % 20 === 0)
      tell({
        done: Math.round(saving + (page / of) * (100 - saving)),
        message: `${message}: page ${page} of ${of}`,
      });
  });
  return { ...saved, numbers: numbersOf(proof), proof: JSON.stringify(proof) };
}
