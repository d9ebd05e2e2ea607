import { expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { readPageStarts } from "@vennet/core/publish/formats/epub/page-starts";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
import { asFolder } from "@vennet/core/publish/export-folder";
import { openExport } from "@vennet/core/proof/exported-folder";
import { generatedBooks } from "../test/exports-to-damage.ts";
import { epubcheck, kept, qpdf } from "../test/tools.ts";
import { textFonts } from "./fonts.ts";
import { Typesetter } from "./typesetter.ts";

const books = generatedBooks(50);

test("fifty generated books are set as PDF/UA-1 with every link, and qpdf finds no fault", async () => {
  const typesetter = new Typesetter();
  const wrong: unknown[] = [];
  let intact = 0;
  for (const [i, book] of books.entries()) {
    const { pdf } = typesetter.write(book, true);
    const bytes = asFolder(book, "walks.pdf", pdf).bytes;
    const reading = await readPdf(bytes);
    const proof = prove(book, reading);
    intact += proof.intact;
    for (const { link, verdict, note } of [...proof.rows, ...proof.made.rows])
      if (verdict !== "intact" && !note?.includes("no number"))
        wrong.push([i, link.id, link.text, verdict, note, link.expected]);
    for (const extra of proof.extra) wrong.push([i, "extra", extra]);
    for (const fault of proof.faults) wrong.push([i, "fault", fault]);
    const said = await qpdf(kept("generated.pdf", Buffer.from(openExport(bytes).main)));
    if (!said.includes("No syntax or stream encoding errors found")) wrong.push([i, said]);
  }
  expect(wrong).toEqual([]);
  expect(intact).toBeGreaterThan(300);
});

// Debian's EPUBCheck takes seconds to start, so it reads three of them; its TypeScript port reads all fifty in core.
test("generated e-books with letters inside and the pages of their PDF pass both EPUBChecks", async () => {
  const typesetter = new Typesetter();
  const fonts = textFonts();
  const told = await Promise.all(
    books.slice(0, 3).map(async (book, i) => {
      const { pdf } = typesetter.write(book, true);
      const pages = { starts: await readPageStarts(pdf), source: "walks.pdf" };
      const bytes = writeEpub(book, { fonts, pages });
      const [{ status, output }, { messages }] = await Promise.all([
        epubcheck(kept(`generated-${i}.epub`, Buffer.from(bytes))),
        EpubCheck.validate(bytes),
      ]);
      const ported = messages.filter(({ severity }) => severity !== "info" && severity !== "usage");
      return status === 0 && output.includes("No errors or warnings") ? ported : [output, ...ported];
    }),
  );
  expect(told).toEqual([[], [], []]);
});
