import { expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { prove } from "@vennet/core/proof/prove";
import { exportOptions, formats, type ExportChoices } from "@vennet/core/publish/formats/formats";
import { prepare } from "@vennet/core/publish/prepare";
import { bookOf } from "@vennet/core/test/sample-book";
import { textFonts } from "./fonts.ts";
import { Typesetter } from "./typesetter.ts";

const markdown = `# A

One[^a] and two[^b] and again[^a].

[^a]: First, see[^c] and[^b].

[^b]: Second, see[^a].

[^c]: Third [x](https://x.example/) see[^b].

# B

Other[^d].

[^d]: Fourth.`;
const every: ExportChoices[] = [
  { format: "pdf" },
  { format: "epub" },
  { format: "web" },
  { format: "web", pages: "chapters" },
  { format: "docx" },
  { format: "odt" },
  { format: "markdown" },
];
const typesetter = new Typesetter();

test.each(["page", "chapter", "book"] as const)(
  "notes by %s that call other notes lead there and back in every format",
  async (notesAt) => {
    for (const choices of every) {
      const options = exportOptions(choices);
      const plain = bookOf(markdown);
      const book = prepare({ ...plain, conventions: { ...plain.conventions, notesAt } }, options);
      const { write, readBack } = formats[options.format];
      const { bytes } = await write(book, options, {
        name: "notes",
        lastPages: null,
        textFonts,
        setPages: (...given) => typesetter.write(...given),
      });
      const proof = prove(book, await readBack(bytes));
      const wrong = [...proof.rows, ...proof.made.rows].filter(({ verdict }) => verdict !== "intact");
      expect([choices, wrong, proof.faults]).toEqual([choices, [], []]);
      if (options.format !== "epub") continue;
      // RSC-012: a fragment that is not there.
      const { messages } = await EpubCheck.validate(bytes);
      expect(messages.filter(({ severity }) => severity !== "info" && severity !== "usage")).toEqual([]);
    }
  },
);
