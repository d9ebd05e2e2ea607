import type { CompanionFile } from "../manuscript/book.ts";
import { foldBlanks, type ExportReading } from "./exported-link.ts";

/** Where an exported file holds a companion file, and how it arrived there. */
export interface ArrivedFile {
  path: string;
  arrived: "whole" | "changed" | "missing";
}

/** How a link finds its companion file: as that arrived, or whole but without the page or place to which the link leads. */
export type FoundFile = ArrivedFile["arrived"] | "without-place";

/**
 * Finds a companion file among those that came along, whatever the writer called it: by its bytes; else by the
 * letters of its name, or by the words of a link to it, where it then is another one or is not there.
 * @param bytes the file's own, or undefined where only its size is known
 * @param words of a link of the manuscript that leads to it
 */
export function findCompanion(
  { name, size }: CompanionFile,
  bytes: Uint8Array | undefined,
  words: string,
  { files, links }: Pick<ExportReading, "files" | "links">,
): ArrivedFile {
  for (const [path, found] of files)
    if (bytes ? sameBytes(found, bytes) : found.length === size && isNamed(path, name))
      return { path, arrived: "whole" };
  const linked = links.flatMap(({ destination, text }) =>
    destination.kind === "file" ? [{ path: partsOfPath(destination.path).file, text }] : [],
  );
  const path =
    [...files.keys(), ...linked.map((link) => link.path)].find((one) => isNamed(one, name)) ??
    linked.find(({ text }) => text === foldBlanks(words))?.path ??
    name;
  return { path, arrived: files.has(path) ? "changed" : "missing" };
}

/** The first path with the same bytes, so that two equal files are one. */
export function firstPathOf(path: string, files: ExportReading["files"]): string {
  const { file, behind } = partsOfPath(path);
  const bytes = files.get(file);
  if (!bytes) return path;
  for (const [other, found] of files) if (sameBytes(found, bytes)) return other + behind;
  return path;
}

/** The path of a file, and what behind it names a page or place in that, with its `#`. */
export function partsOfPath(path: string): { file: string; behind: string } {
  const at = path.indexOf("#");
  return at === -1 ? { file: path, behind: "" } : { file: path.slice(0, at), behind: path.slice(at) };
}

function sameBytes(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((byte, i) => byte === b[i]);
}

function isNamed(path: string, name: string): boolean {
  return lettersOf(path.split("/").at(-1)!) === lettersOf(name);
}

function lettersOf(name: string): string {
  return name
    .normalize("NFKD")
    .replace(/[^\p{L}\p{N}]+/gu, "")
    .toLowerCase();
}
