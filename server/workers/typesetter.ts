import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { CodedError } from "@vennet/core/errors";
import { NodeCompiler, type NodeTypstDocument } from "@myriaddreamin/typst-ts-node-compiler";
import type { FontFace } from "@vennet/core/manuscript/book-fonts";
import { pictureSuffix, type Book, type PictureFile } from "@vennet/core/manuscript/book";
import { chapterTitle } from "@vennet/core/manuscript/chapter";
import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import { damagedPicture } from "@vennet/core/publish/damaged-picture";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import { finishPdf, type PdfPlace } from "@vennet/core/publish/formats/pdf/finish-pdf";
import { findMissingLetters } from "@vennet/core/publish/formats/pdf/missing-letters";
import type { PrintedAddresses } from "@vennet/core/publish/formats/pdf/options";
import { keepNotes, type Keep } from "@vennet/core/publish/formats/pdf/stray-notes";
import {
  chapterAlone,
  typesetBook,
  type ChapterAlone,
  type Typeset,
  type TypesetChoices,
  type TypesetFiles,
} from "@vennet/core/publish/formats/pdf/typeset-book";
import { FontShapes, fontFolders, typesettingFonts } from "./fonts.ts";
import { SettledNotes } from "./settled-notes.ts";

/** The typesetter refused the book; the message is its own, in plain words as far as it has any. */
export class TypesetError extends CodedError {
  constructor(message: string) {
    super("typeset", message);
  }
}

// Nothing lies in this folder: every file that the compiler may read is given to it in memory.
const workspace = "/vennet-typesetter";
const main = `${workspace}/book.typ`;
const templates = ["book.typ", "formula.typ", "parts.typ", "pictures.typ"];
/** Each costs a setting of what follows; most books need one. */
const mostRounds = 12;
/** From so many bytes of the process on, what a round did not use is let go before the next. */
const muchMemory = 800 * 1024 * 1024;

/**
 * Sets books with Typst. One instance keeps what it has set, so that a book set again after an edit
 * costs only what has changed. Native code that blocks: to be used in a process of its own.
 */
export class Typesetter {
  private readonly compiler: NodeCompiler;
  private readonly shapes: FontShapes;
  /** The files of the book set last, so that only changed ones are given to the compiler again. */
  private given = new Map<string, string | Uint8Array>();
  private readonly settled = new SettledNotes();

  /** @param faces the author's own fonts */
  constructor(faces: readonly FontFace[] = []) {
    this.shapes = new FontShapes(faces);
    const own = faces.map(({ bytes }) => Buffer.from(bytes));
    const fontArgs = [{ fontBlobs: [...own, ...typesettingFonts()] }, { fontPaths: fontFolders() }];
    this.compiler = NodeCompiler.create({ fontArgs, workspace });
    for (const name of templates) {
      const places = ["../typesetter", "../../typesetter"];
      const source = readFirst(places.map((place) => join(import.meta.dirname, place, name)));
      this.compiler.addSource(`${workspace}/${name}`, source);
    }
  }

  /**
   * Sets a book. A letter without a shape and a picture that cannot be decoded are replaced and told.
   * @throws TypesetError with what the typesetter says, and of which chapter.
   */
  write(
    book: Book,
    accessible: boolean,
    addresses: PrintedAddresses = "none",
    alone: ChapterAlone | null = null,
  ): { pdf: Uint8Array; warnings: ExportWarning[] } {
    const { letters, changes } = findMissingLetters(book, this.shapes);
    const warnings = changes.map(({ code, chapter, message }): ExportWarning => ({ code, chapter, message }));
    const set = (given: Book, part = alone): Uint8Array =>
      this.setNotesByMarks(
        given,
        { addresses, alone: part, missing: letters, shapes: this.shapes },
        accessible,
      );
    try {
      return { pdf: set(book), warnings };
    } catch (error) {
      if (!(error instanceof TypesetError)) throw error;
      const damaged = book.pictures.filter((picture) => !this.canShow(picture));
      if (damaged.length === 0)
        throw named(error, book, (chapter) => {
          if (alone) return set(book);
          const one = chapterAlone(book, chapter);
          return set(one.book, one.alone);
        });
      const sound = { ...book, pictures: book.pictures.filter((picture) => !damaged.includes(picture)) };
      return { pdf: set(sound), warnings: [...warnings, ...damaged.map((picture) => damage(picture, book))] };
    }
  }

  /** Sets a book, and again what notes began on another page than their marks, until none does or nothing helps. */
  private setNotesByMarks(book: Book, choices: TypesetChoices, accessible: boolean): Uint8Array {
    const typeset = typesetBook(book, choices);
    let keeps: ReadonlyMap<string, Keep> = this.settled.of(typeset);
    for (let round = 1; ; round++) {
      const { document, places } = this.compile(typeset.keeping(keeps), typeset.pictures);
      const next = round < mostRounds ? keepNotes(book, places, keeps) : null;
      if (next === null) {
        this.settled.remember(typeset, keeps);
        return this.finished(document, places, typeset, accessible);
      }
      keeps = next;
      if (process.memoryUsage.rss() > muchMemory) this.compiler.evictCache(1);
    }
  }

  private compile(
    files: TypesetFiles,
    pictures: ReadonlyMap<string, Uint8Array>,
  ): { document: NodeTypstDocument; places: PdfPlace[] } {
    this.give(new Map<string, string | Uint8Array>([...files, ...pictures]));
    const compiled = this.compiler.compile({ mainFilePath: main, resetRead: false });
    if (!compiled.result) {
      const error = compiled.takeError();
      const diagnostics = error ? (this.compiler.fetchDiagnostics(error) as { message: string }[]) : [];
      throw new TypesetError(
        [...new Set(diagnostics.map((one) => one.message))].join("; ") || "unknown reason",
      );
    }
    const [places] = this.compiler.query(compiled.result, { selector: "<places>", field: "value" }) as [
      PdfPlace[],
    ];
    return { document: compiled.result, places };
  }

  private finished(
    document: NodeTypstDocument,
    places: PdfPlace[],
    { marked, languages }: Typeset,
    accessible: boolean,
  ): Uint8Array {
    let pdf: Uint8Array;
    try {
      pdf = this.compiler.pdf(document, accessible ? { pdfStandard: "ua-1" } : {});
    } catch (error) {
      const messages = [...(error as Error).message.matchAll(/message: "((?:[^"\\]|\\.)*)"/g)].map(
        (match) => match[1]!,
      );
      throw new TypesetError([...new Set(messages)].join("; ") || (error as Error).message);
    }
    // Keeps what the last few settings used, and lets go of the rest.
    this.compiler.evictCache(5);
    return finishPdf(pdf, marked, places, languages);
  }

  /** Whether the typesetter can decode a picture, tried with the picture alone. */
  canShow({ mediaType, bytes }: PictureFile): boolean {
    const path = `${workspace}/tried.${pictureSuffix[mediaType]}`;
    this.compiler.mapShadow(path, Buffer.from(bytes));
    this.compiler.addSource(`${workspace}/tried.typ`, `#image("tried.${pictureSuffix[mediaType]}")`);
    const { result } = this.compiler.compile({ mainFilePath: `${workspace}/tried.typ`, resetRead: false });
    this.compiler.unmapShadow(path);
    return result !== null;
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

/** The typesetter's refusal with the chapters that it is about, found by setting each alone. */
function named(error: TypesetError, book: Book, setAlone: (chapter: number) => void): TypesetError {
  const refused = book.chapters.flatMap(({ doc }, chapter) => {
    try {
      setAlone(chapter);
      return [];
    } catch (alone) {
      if (!(alone instanceof TypesetError)) throw alone;
      return [`Chapter “${chapterTitle(doc)}” cannot be set: ${alone.message}.`];
    }
  });
  return refused.length > 0 ? new TypesetError(refused.join("\n")) : error;
}

function damage({ id }: PictureFile, { chapters }: Book): ExportWarning {
  for (const { doc } of chapters) {
    let shown: ReturnType<typeof pictureAttrs> | null = null;
    doc.descendants((node) => {
      if (node.type.name === "picture" && node.attrs["file"] === id) shown ??= pictureAttrs(node);
    });
    if (!shown) continue;
    return { code: "picture", chapter: chapterTitle(doc), message: damagedPicture(shown, true) };
  }
  return { code: "picture", chapter: null, message: "A picture is damaged." };
}

function readFirst(paths: string[]): string {
  for (const path of paths) {
    try {
      return readFileSync(path, "utf8");
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    }
  }
  throw new TypesetError("A template of the typesetter is missing from this installation.");
}

let plain: Typesetter | null = null;
let withOwn: { key: string; typesetter: Typesetter } | null = null;

/**
 * The typesetter of this process, which keeps what it has set from one task to the next; where a book has fonts of its
 * author's, one that has these, and goes when another book's are asked for.
 */
export function typesetter(faces: readonly FontFace[] = []): Typesetter {
  if (faces.length === 0) return (plain ??= new Typesetter());
  const hash = createHash("sha256");
  for (const { bytes } of faces) hash.update(bytes);
  const key = hash.digest("hex");
  if (withOwn?.key !== key) withOwn = { key, typesetter: new Typesetter(faces) };
  return withOwn.typesetter;
}
