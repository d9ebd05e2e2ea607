import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import type { SavedFile } from "@vennet/core/finished/saved-file";
import { saveFinished } from "@vennet/core/finished/work-on-file";
import { numbersOf, type ProofNumbers } from "@vennet/core/proof/compare";
import type { TaskEvent } from "../workers/task.ts";

interface ProvenFile extends SavedFile {
  numbers: ProofNumbers;
  /** The whole proof as JSON: nobody on the way looks into it. */
  proof: string;
}

/** How much of a hundred is done when comparing begins, about. */
const saving = 40;

/** Writes the links of a finished file as they are to be, reads the saved file back, and compares. */
export async function run(
  {
    format,
    bytes,
    pages,
    files,
    password,
  }: {
    format: FinishedFormat;
    bytes: Uint8Array;
    /** Each as JSON. */
    pages: readonly string[];
    /** The names of the files beside it, by their ids. */
    files: ReadonlyMap<string, string>;
    password: string;
  },
  tell: (event: TaskEvent) => void,
): Promise<ProvenFile> {
  tell({ done: 5, message: "Writing the links" });
  const parts = pages.map((page) => JSON.parse(page) as unknown);
  const { proof, ...saved } = await saveFinished(
    format,
    bytes,
    parts,
    files,
    (page, of) => {
      if (page === 0) tell({ done: saving, message: "Reading the file back" });
      else if (page % 20 === 0)
        tell({
          done: Math.round(saving + (page / of) * (100 - saving)),
          message: `Reading the file back: page ${page} of ${of}`,
        });
    },
    password,
  );
  return { ...saved, numbers: numbersOf(proof), proof: JSON.stringify(proof) };
}
