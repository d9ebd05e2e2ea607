import { compareLinks, type LinkProof } from "@vennet/core/proof/compare";
import { manuscriptLinks } from "@vennet/core/proof/manuscript-links";
import type { Written } from "@vennet/core/publish/formats/format";
import { formats, type ExportOptions } from "@vennet/core/publish/formats/formats";
import { textFonts } from "../workers/fonts.ts";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";
import type { TaskEvent } from "../workers/task.ts";
import { typesetter } from "../workers/typesetter.ts";

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
): Promise<Written & { proof: LinkProof; pageOfPlace: ReadonlyMap<string, string> }> {
  const { options, name, lastPages } = input;
  const book = bookOfPlain(input.book);
  const { doing, write, readBack } = formats[options.format];
  tell({ done: 1, message: doing });
  const written = await write(book, options, {
    name,
    lastPages,
    textFonts,
    setPages: (...given) => typesetter().write(...given),
  });
  tell({ done: 2, message: "Reading the file back" });
  const reading = await readBack(written.bytes);
  const proof = compareLinks(manuscriptLinks(book, reading), reading);
  return { ...written, proof, pageOfPlace: reading.pageOfPlace };
}
