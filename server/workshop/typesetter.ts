import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { NodeCompiler } from "@myriaddreamin/typst-ts-node-compiler";
import type { Book } from "@vennet/core/manuscript/book";
import { finishPdf, type PdfPlace } from "@vennet/core/publish/finish-pdf";
import { typesetBook, type PrintedAddresses } from "@vennet/core/publish/typeset";

/** The typesetter refused the book; the message is its own, in plain words as far as it has any. */
export class TypesetError extends Error {
  override readonly name = "TypesetError";
  readonly code = "typeset";
}

const fonts = [
  "literata/400Regular/Literata_400Regular.ttf",
  "literata/400Regular_Italic/Literata_400Regular_Italic.ttf",
  "literata/700Bold/Literata_700Bold.ttf",
  "literata/700Bold_Italic/Literata_700Bold_Italic.ttf",
  "jetbrains-mono/400Regular/JetBrainsMono_400Regular.ttf",
  "jetbrains-mono/700Bold/JetBrainsMono_700Bold.ttf",
  "noto-sans-symbols-2/400Regular/NotoSansSymbols2_400Regular.ttf",
  "noto-sans-math/400Regular/NotoSansMath_400Regular.ttf",
  "noto-emoji/400Regular/NotoEmoji_400Regular.ttf",
];

// Nothing lies in this folder: every file that the compiler may read is given to it in memory.
const workspace = "/vennet-typesetter";
const main = `${workspace}/book.typ`;

/**
 * Sets books with Typst. One instance keeps what it has set, so that a book set again after an edit
 * costs only what has changed. Native code that blocks: to be used in a process of its own.
 */
export class Typesetter {
  private readonly compiler: NodeCompiler;
  /** The files of the book set last, so that only changed ones are given to the compiler again. */
  private given = new Map<string, string | Uint8Array>();

  constructor() {
    const require = createRequire(import.meta.url);
    const fontBlobs = fonts.map((font) => {
      const [name, ...rest] = font.split("/") as [string, ...string[]];
      return readFileSync(join(dirname(require.resolve(`@expo-google-fonts/${name}/package.json`)), ...rest));
    });
    this.compiler = NodeCompiler.create({ fontArgs: [{ fontBlobs }], workspace });
    const template = join(import.meta.dirname, "../typesetter/book.typ");
    const built = join(import.meta.dirname, "../../typesetter/book.typ");
    this.compiler.addSource(main, readFirst([template, built]));
  }

  /**
   * Sets a book.
   * @throws TypesetError with what the typesetter says.
   */
  write(book: Book, accessible: boolean, addresses: PrintedAddresses = "none"): Uint8Array {
    const { files, pictures, marked } = typesetBook(book, addresses);
    this.give(new Map<string, string | Uint8Array>([...files, ...pictures]));
    const compiled = this.compiler.compile({ mainFilePath: main, resetRead: false });
    if (!compiled.result) {
      const error = compiled.takeError();
      const diagnostics = error ? (this.compiler.fetchDiagnostics(error) as { message: string }[]) : [];
      throw new TypesetError(
        [...new Set(diagnostics.map((one) => one.message))].join("; ") || "unknown reason",
      );
    }
    let pdf: Uint8Array;
    try {
      pdf = this.compiler.pdf(compiled.result, accessible ? { pdfStandard: "ua-1" } : {});
    } catch (error) {
      const messages = [...(error as Error).message.matchAll(/message: "((?:[^"\\]|\\.)*)"/g)].map(
        (match) => match[1]!,
      );
      throw new TypesetError([...new Set(messages)].join("; ") || (error as Error).message);
    }
    const [places] = this.compiler.query(compiled.result, { selector: "<places>", field: "value" }) as [
      PdfPlace[],
    ];
    // Keeps what the last few settings used, and lets go of the rest.
    this.compiler.evictCache(5);
    return finishPdf(pdf, marked, places);
  }

  private give(files: Map<string, string | Uint8Array>): void {
    for (const path of this.given.keys()) if (!files.has(path)) this.compiler.unmapShadow(workspace + path);
    for (const [path, content] of files) {
      if (this.given.get(path) === content) continue;
      this.compiler.mapShadow(workspace + path, Buffer.from(content as Uint8Array));
    }
    this.given = files;
  }
}

function readFirst(paths: string[]): string {
  for (const path of paths) {
    try {
      return readFileSync(path, "utf8");
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    }
  }
  throw new TypesetError("The typesetter's template book.typ is missing from this installation.");
}
