import type { Book, CompanionFile } from "../manuscript/book.ts";
import { linkUses } from "../manuscript/links.ts";
import { noDeviceName } from "./device-names.ts";

/** A companion file on its way out of the house. */
export interface TravellingFile extends CompanionFile {
  id: string;
  /** Where an export holds it, seen from its pages: plain letters, so that it is one address everywhere. */
  path: string;
}

/** The folder of an export that holds the companion files. */
export const filesFolder = "files";

/** The companion files to which links of a book lead, by their ids, in the order in which they are first linked. */
export function travellingFiles(
  book: Pick<Book, "chapters" | "files" | "leavesFiles">,
): Map<string, TravellingFile> {
  const found = new Map<string, TravellingFile>();
  if (book.leavesFiles) return found;
  const taken = new Set<string>();
  for (const { doc } of book.chapters) {
    for (const { destination } of linkUses(doc)) {
      if (destination.kind !== "file" || !("file" in destination) || found.has(destination.file)) continue;
      const file = book.files.get(destination.file);
      if (!file) continue;
      const path = `${filesFolder}/${freeName(plainName(file.name), taken)}`;
      found.set(destination.file, { ...file, id: destination.file, path });
    }
  }
  return found;
}

const longestStem = 60;

/** A name of letters, digits, dots, hyphens and underscores, with the ending of the given one. */
function plainName(name: string): string {
  const [, stem = "", ending = ""] = /^(.*?)(\.[A-Za-z0-9]{1,8})?$/s.exec(name) ?? [];
  const plain = stem
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .replace(/[^A-Za-z0-9._-]+/g, "-")
    .replace(/^[.-]+|[.-]+$/g, "")
    .slice(0, longestStem);
  return noDeviceName(`${plain || "file"}${ending}`);
}

/** The name, or the name with a number where another file has it, letters' case aside. */
function freeName(name: string, taken: Set<string>): string {
  const dot = name.lastIndexOf(".");
  const [stem, ending] = dot > 0 ? [name.slice(0, dot), name.slice(dot)] : [name, ""];
  let free = name;
  for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${stem}-${n}${ending}`;
  taken.add(free.toLowerCase());
  return free;
}
