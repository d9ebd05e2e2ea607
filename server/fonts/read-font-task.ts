import { NodeCompiler } from "@myriaddreamin/typst-ts-node-compiler";
import { CodedError } from "@vennet/core/errors";
import type { FaceFacts, FontFace, Permission } from "@vennet/core/manuscript/book-fonts";
import { create, type Font } from "fontkit";

/** The bits of `fsType`, as the reader of fonts names them. */
interface EmbeddingBits {
  noEmbedding?: boolean;
  viewOnly?: boolean;
  editable?: boolean;
  noSubsetting?: boolean;
  bitmapOnly?: boolean;
}

/** What a font's own tables say. */
interface FontTables {
  facts: Omit<FaceFacts, "family">;
  onlyBitmaps: boolean;
  isVariable: boolean;
  /** The names by which it may be known. */
  names: string[];
  /** Those for which it has a shape. */
  letters: string;
  drawsLetters: boolean;
}

/** A font that cannot be used, with what to do. */
class FontError extends CodedError {
  constructor(name: string, message: string) {
    super("font", `“${name}” ${message}`, "fonts");
  }
}

/** By `usWidthClass`, from 1 to 9, in hundredths of the normal width. */
const widths = [50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200];
const workspace = "/vennet-font";
const main = `${workspace}/sample.typ`;
/** Names that end in a style are cut by the typesetter, word by word. */
const mostWords = 8;
/** So many are looked at for one that is drawn. */
const firstLetters = 200;

/**
 * What is known of a font, read and tried in a process of its own: whose family it is, how heavy, and what its maker
 * lets others do with it (OpenType 1.9, `OS/2` and `name`).
 * @throws FontError where the typesetter cannot use it, or where it may not be put into files
 */
export function run({
  name,
  bytes,
}: {
  name: string;
  bytes: Uint8Array;
}): FaceFacts & Pick<FontFace, "mediaType"> {
  const mediaType = mediaTypeOf(name, bytes);
  const tables = read(name, bytes);
  assertUsable(name, tables);
  const family = familyInTypesetter(tables, bytes);
  if (family === null)
    throw new FontError(
      name,
      "cannot be used by the typesetter: some of its letters are damaged, or it has no name. Bring it again, or another.",
    );
  return { family, ...tables.facts, mediaType };
}

/** By its first bytes (OpenType 1.9, table directory). */
function mediaTypeOf(name: string, bytes: Uint8Array): FontFace["mediaType"] {
  const tag = Buffer.from(bytes.subarray(0, 4)).toString("latin1");
  if (tag === "OTTO") return "font/otf";
  if (tag === "\0\x01\0\0" || tag === "true") return "font/ttf";
  if (tag === "ttcf")
    throw new FontError(
      name,
      "is a collection of fonts (TTC). Bring each of its fonts as a file of its own.",
    );
  if (tag === "wOFF" || tag === "wOF2")
    throw new FontError(name, "is packed for web pages (WOFF). Bring the same font as TTF or OTF.");
  throw new FontError(name, "is no font. Bring a TTF or OTF file.");
}

function read(name: string, bytes: Uint8Array): FontTables {
  try {
    const font = create(Buffer.from(bytes)) as Font;
    const os2 = font["OS/2"];
    const bits = os2.fsType as unknown as EmbeddingBits;
    const letters = font.characterSet
      .map((code) => String.fromCodePoint(code))
      .filter((letter) => /[^\p{Z}\p{C}]/u.test(letter));
    return {
      facts: {
        weight: Math.min(900, Math.max(100, Math.round(os2.usWeightClass / 100) * 100 || 400)),
        stretch: widths[os2.usWidthClass - 1] ?? 100,
        italic: Boolean((os2.fsSelection as { italic?: boolean }).italic),
        permission: permissionOf(bits),
        canBeSubset: !bits.noSubsetting,
      },
      onlyBitmaps: Boolean(bits.bitmapOnly),
      isVariable: Object.keys(font.variationAxes).length > 0,
      names: ["preferredFamily", "fontFamily"].map((key) => font.getName(key, "en") ?? ""),
      letters: letters.join(""),
      drawsLetters: letters
        .slice(0, firstLetters)
        .some((letter) => font.glyphForCodePoint(letter.codePointAt(0)!).path.commands.length > 0),
    };
  } catch (error) {
    throw new FontError(
      name,
      `is damaged (${(error as Error).message}). Bring it again from where you have it.`,
    );
  }
}

/** Of several bits the one that permits most holds (OpenType 1.9, `fsType`); none of them permits all. */
function permissionOf({ noEmbedding, viewOnly, editable }: EmbeddingBits): Permission {
  if (editable) return "editable";
  if (viewOnly) return "preview";
  return noEmbedding ? "restricted" : "installable";
}

function assertUsable(name: string, { facts, onlyBitmaps, isVariable, drawsLetters }: FontTables): void {
  if (facts.permission === "restricted")
    throw new FontError(
      name,
      "may not be put into files: its maker says so in the font (restricted license embedding). Ask its maker for one that may.",
    );
  if (onlyBitmaps)
    throw new FontError(
      name,
      "may be put into files only as pictures of its letters, as its maker says, and no export does so. Choose another.",
    );
  if (isVariable)
    throw new FontError(
      name,
      "holds many weights in one file (a variable font), which the typesetter cannot set. Bring a file for each weight that the book needs.",
    );
  if (!drawsLetters)
    throw new FontError(name, "is damaged: it draws no letter. Bring it again from where you have it.");
}

/** By what name the typesetter finds the font, tried to the file with all its letters in it; null where it does not. */
function familyInTypesetter({ names, letters }: FontTables, bytes: Uint8Array): string | null {
  const compiler = NodeCompiler.create({ fontArgs: [{ fontBlobs: [Buffer.from(bytes)] }], workspace });
  for (const family of candidates(names)) {
    const [font, words] = [JSON.stringify(family), JSON.stringify(letters)];
    compiler.addSource(main, `#set text(font: ${font}, fallback: false)\n#text(${words})`);
    const compiled = compiler.compile({ mainFilePath: main, resetRead: false });
    if (compiled.result === null || compiled.takeWarnings() !== null) continue;
    return canBeWritten(compiler, compiled.result) ? family : null;
  }
  return null;
}

/** Each name, whole first and then without its last words. */
function candidates(names: readonly string[]): Set<string> {
  const found = new Set<string>();
  for (const name of names) {
    const words = name
      .replace(/\p{Cc}/gu, "")
      .trim()
      .split(/\s+/u)
      .slice(0, mostWords);
    for (let count = words.length; count > 0; count--) found.add(words.slice(0, count).join(" "));
  }
  found.delete("");
  return found;
}

function canBeWritten(compiler: NodeCompiler, document: Parameters<NodeCompiler["pdf"]>[0]): boolean {
  try {
    compiler.pdf(document, {});
    return true;
  } catch {
    // What it says is about tables of the font, which tell an author nothing.
    return false;
  }
}
