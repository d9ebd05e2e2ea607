import { numbersOf, type ProofNumbers } from "@vennet/core/proof/compare";
import { prove } from "@vennet/core/proof/prove";
import type { Written } from "@vennet/core/publish/formats/format";
import { ownFonts } from "@vennet/core/publish/own-fonts";
import { prepare } from "@vennet/core/publish/prepare";
import { formats, type ExportOptions } from "@vennet/core/publish/formats/formats";
import { textFonts } from "../workers/fonts.ts";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";
import type { TaskEvent } from "../workers/task.ts";
import { typesetter } from "../workers/typesetter.ts";

/** How much of a hundred is done when each begins, about; of long PDFs reading back takes the most. */
const shares = { writing: 5, reading: 40, comparing: 97 };
/** Milliseconds between two things that are told. */
const pause = 200;

/** An exported file, and what came of reading it back. */
interface Exported extends Written {
  numbers: ProofNumbers;
  /** The whole proof as JSON: nobody on the way looks into it. */
  proof: string;
  pageOfPlace: ReadonlyMap<string, string>;
}

/** Writes an exported file, reads its own bytes back, and compares its links with the manuscript's. */
export async function run(
  input: {
    book: PlainBook;
    options: ExportOptions;
    name: string;
    /** The last exported file that has pages, where the format needs it. */
    lastPages: { name: string; bytes: Uint8Array } | null;
  },
  tell: (event: TaskEvent) => void,
): Promise<Exported> {
  const { options, name, lastPages } = input;
  const book = prepare(bookOfPlain(input.book), options);
  const { doing, write, readBack } = formats[options.format];
  tell({ done: shares.writing, message: doing });
  const written = await write(book, options, {
    name,
    lastPages,
    textFonts,
    setPages: (...given) => typesetter(ownFonts(book, "pdf").faces).write(...given),
  });
  const message = "Reading the file back";
  tell({ done: shares.reading, message });
  let told = Date.now();
  const tellPage = (page: number, of: number): void => {
    if (Date.now() - told < pause) return;
    told = Date.now();
    const share = (page / of) * (shares.comparing - shares.reading);
    tell({ done: Math.round(shares.reading + share), message: `${message}: page ${page} of ${of}` });
  };
  const reading = await readBack(written.bytes, tellPage);
  tell({ done: shares.comparing, message: "Comparing the links" });
  const proof = prove(book, reading);
  return {
    ...written,
    numbers: numbersOf(proof),
    proof: JSON.stringify(proof),
    pageOfPlace: reading.pageOfPlace,
  };
}
