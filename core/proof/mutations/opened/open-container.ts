import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from "fflate";

const date = new Date(1980, 0, 1);
const storedFirst = "mimetype";

/** A place in one text of a container. */
export interface Stretch {
  path: string;
  start: number;
  end: number;
  /** What a regular expression found there. */
  match: RegExpExecArray;
}

/** An exported file, or a folder of them in a zip, whose texts can be changed. */
export class OpenContainer {
  readonly files: Map<string, Uint8Array>;
  private readonly isZip: boolean;

  constructor(bytes: Uint8Array) {
    this.isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
    this.files = new Map(this.isZip ? Object.entries(unzipSync(bytes)) : [["", bytes]]);
  }

  /** The first file whose path a regular expression fits; that which is no folder is its only one. */
  pathOf(expression: RegExp): string | undefined {
    return this.isZip ? [...this.files.keys()].find((path) => expression.test(path)) : "";
  }

  text(path: string): string {
    return strFromU8(this.files.get(path)!);
  }

  write(path: string, text: string): void {
    this.files.set(path, strToU8(text));
  }

  /** Everything in some files that an expression finds. */
  find(paths: readonly string[], expression: RegExp): Stretch[] {
    return paths.flatMap((path) =>
      [...this.text(path).matchAll(new RegExp(expression, `${expression.flags.replace("g", "")}g`))].map(
        (match) => ({ path, start: match.index, end: match.index + match[0].length, match }),
      ),
    );
  }

  /** Puts other text in a place. */
  replace({ path, start, end }: Stretch, text: string): void {
    const old = this.text(path);
    this.write(path, old.slice(0, start) + text + old.slice(end));
  }

  /** Puts each of two places' texts in the other's. */
  swap(one: Stretch, other: Stretch, textOf: (stretch: Stretch, from: Stretch) => string): void {
    const [first, last] = one.path === other.path && one.start > other.start ? [other, one] : [one, other];
    const [ofFirst, ofLast] = [textOf(first, last), textOf(last, first)];
    // The last is changed first, so that the first stays where it is.
    this.replace(last, ofLast);
    this.replace(first, ofFirst);
  }

  bytes(): Uint8Array {
    if (!this.isZip) return this.files.get("")!;
    const folder: Zippable = {};
    for (const [path, bytes] of this.files)
      folder[path] = [bytes, { mtime: date, level: path === storedFirst ? 0 : 6 }];
    return zipSync(folder);
  }
}
