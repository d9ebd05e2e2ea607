import { checkBook } from "@vennet/core/checks/check-book";
import { rules } from "@vennet/core/checks/check-chapter";
import { importMarkdown } from "@vennet/core/import/markdown";
import type { Book } from "@vennet/core/manuscript/book";
import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { compareLinks } from "@vennet/core/proof/compare";
import { manuscriptLinks } from "@vennet/core/proof/manuscript-links";
import type { ExportReading } from "@vennet/core/proof/exported-link";
import { readDocx } from "@vennet/core/proof/read-docx";
import { readEpub } from "@vennet/core/proof/read-epub";
import { readMarkdown } from "@vennet/core/proof/read-markdown";
import { readPageStarts } from "@vennet/core/proof/read-page-starts";
import { readPdf } from "@vennet/core/proof/read-pdf";
import { readWebPage } from "@vennet/core/proof/read-web-page";
import { writeDocx } from "@vennet/core/publish/docx";
import { writeEpub } from "@vennet/core/publish/epub";
import { asFolder } from "@vennet/core/publish/export-folder";
import type { ExportFormat } from "@vennet/core/publish/export-options";
import { writeMarkdown } from "@vennet/core/publish/markdown";
import { writeWebFolder } from "@vennet/core/publish/web-folder";
import { writeWebPage } from "@vennet/core/publish/web-page";
import { textFonts } from "./fonts.ts";
import type { PlainBook, TaskName, TaskResult, Tasks } from "./tasks.ts";
import { Typesetter } from "./typesetter.ts";

// The child process that does the heavy work, one task after the other, as its parent sends them.

let typesetter: Typesetter | null = null;

const work: {
  [K in TaskName]: (input: Tasks[K]["input"]) => Promise<Tasks[K]["output"]> | Tasks[K]["output"];
} = {
  importMarkdown: ({ markdown, fallbackTitle, baseAddress, pictures }) => {
    const { title, chapters, leftOut } = importMarkdown(markdown, {
      fallbackTitle,
      baseAddress,
      pictureFor: (source) => pictures[fileName(source)] ?? null,
    });
    return { title, chapters: chapters.map(writeChapter), leftOut };
  },
  writePdf: ({ book, name, accessible, addresses }) => {
    typesetter ??= new Typesetter();
    const whole = revive(book);
    const { pdf, warnings } = typesetter.write(whole, accessible, addresses);
    return { bytes: asFolder(whole, name, pdf), warnings };
  },
  setChapter: ({ book, chapter, pageOfPlace }) => {
    typesetter ??= new Typesetter();
    const pages = new Map(Object.entries(pageOfPlace));
    return typesetter.write(revive(book), false, "none", { chapter, pageOfPlace: pages }).pdf;
  },
  writeEpub: async ({ book, fonts, pdf }) => {
    const pages = pdf && { starts: await readPageStarts(pdf.bytes), source: pdf.name };
    const bytes = writeEpub(revive(book), { fonts: fonts ? textFonts() : [], pages });
    return { bytes, warnings: [] };
  },
  writeWebPage: ({ book, name, pages }) => {
    const whole = revive(book);
    const bytes = pages === "chapters" ? writeWebFolder(whole) : asFolder(whole, name, writeWebPage(whole));
    return { bytes, warnings: [] };
  },
  writeMarkdown: ({ book, name }) => ({ bytes: writeMarkdown(revive(book), name), warnings: [] }),
  writeDocx: async ({ book, name }) => ({ bytes: await writeDocx(revive(book), name), warnings: [] }),
  check: ({ book, known, only }) =>
    checkBook(revive(book), known, only === undefined ? rules : rules.filter(({ id }) => id === only)),
  prove: async ({ book, format, bytes }) => {
    const read = readers[format];
    const reading = await read(bytes);
    const proof = compareLinks(manuscriptLinks(revive(book), reading), reading);
    return { proof, pageOfPlace: reading.pageOfPlace };
  },
};

const readers: Record<ExportFormat, (bytes: Uint8Array) => Promise<ExportReading> | ExportReading> = {
  pdf: readPdf,
  epub: readEpub,
  web: readWebPage,
  markdown: readMarkdown,
  docx: readDocx,
};

function revive(book: PlainBook): Book {
  return {
    ...book,
    chapters: book.chapters.map(({ id, role, document }) => ({ id, role, doc: readChapter(document) })),
  };
}

function fileName(source: string): string {
  const name =
    source
      .replace(/[?#].*$/s, "")
      .split("/")
      .at(-1) ?? "";
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

process.on("message", ({ name, input }: { name: TaskName; input: never }) => {
  const send = (result: TaskResult): void => void process.send!(result);
  Promise.resolve()
    .then(() => work[name](input))
    .then(
      (output) => send({ ok: true, output }),
      (error: Error & { code?: unknown }) => {
        const expected =
          typeof error.code === "string" && error.name !== "Error" && error.name !== "TypeError";
        send({
          ok: false,
          code: expected ? String(error.code) : "internal",
          message: expected ? error.message : (error.stack ?? error.message),
          expected,
        });
      },
    );
});

process.on("disconnect", () => process.exit(0));
