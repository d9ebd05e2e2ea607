import { checkBook } from "@vennet/core/checks/check-book";
import { rules } from "@vennet/core/checks/check-chapter";
import { importMarkdown } from "@vennet/core/import/markdown";
import type { Book } from "@vennet/core/manuscript/book";
import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { compareLinks } from "@vennet/core/proof/compare";
import { manuscriptLinks } from "@vennet/core/proof/manuscript-links";
import { readEpub } from "@vennet/core/proof/read-epub";
import { readPdf } from "@vennet/core/proof/read-pdf";
import { readWebPage } from "@vennet/core/proof/read-web-page";
import { writeEpub } from "@vennet/core/publish/epub";
import { withCompanionFiles } from "@vennet/core/publish/export-folder";
import { writeWebPage } from "@vennet/core/publish/web-page";
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
    return withCompanionFiles(whole, name, typesetter.write(whole, accessible, addresses));
  },
  writeEpub: ({ book }) => writeEpub(revive(book)),
  writeWebPage: ({ book, name }) => {
    const whole = revive(book);
    return withCompanionFiles(whole, name, writeWebPage(whole));
  },
  check: ({ book, known, only }) =>
    checkBook(revive(book), known, only === undefined ? rules : rules.filter(({ id }) => id === only)),
  prove: async ({ book, format, bytes }) => {
    const read = { pdf: readPdf, epub: readEpub, web: readWebPage }[format];
    const reading = await read(bytes);
    const proof = compareLinks(manuscriptLinks(revive(book), reading), reading);
    return { proof, pageOfPlace: reading.pageOfPlace };
  },
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
