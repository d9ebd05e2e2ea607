import { percentDecoded } from "../percent-decoded.ts";
import { DestinationError } from "../errors.ts";
import { schemeOf, withoutIgnoredCharacters } from "../scheme.ts";
import type { DestinationKindOf, DestinationNames } from "./kind.ts";
import { askedOfWeb, hostOf, webDestination } from "./web.ts";

/**
 * A file. `file` is the id of a companion file, which stays when the file is renamed or replaced; `at` names a page or a
 * place in it as an address does behind its `#` (RFC 8118; WHATWG HTML, 7.4.6.4); `share`
 * the http or https address under which a shared folder gives the file out; `path` a relative reference
 * (RFC 3986) from a manuscript whose file was not brought along.
 */
export type FileDestination =
  | { kind: "file"; file: string; at?: string }
  | { kind: "file"; share: string }
  | { kind: "file"; path: string };

/** What is said of a path that leads to another computer. */
export const networkFolder =
  "This is a folder of another computer, which readers cannot open. Bring the file in, or give a web address for it.";

/** Whether a path names another computer: with two slashes of either kind before it, as URLs and some systems have it. */
export function isNetworkPath(path: string): boolean {
  return /^[/\\]{2}/.test(withoutIgnoredCharacters(path));
}

const gone = "a file that is gone";

/** What stands behind the path of a file in an address that leads to a page or place of it; empty where it leads to the file. */
export function behindPath(at: string | null | undefined): string {
  return at ? `#${at}` : "";
}

/** By what the name of a place of a companion file is found. */
export function inFileKey(file: string, at: string): string {
  return `${file}#${at}`;
}

/** A companion file in words, and behind its name the page or place of it. */
function fileWords(file: string, at: string | undefined, { files, inFiles }: DestinationNames): string {
  const name = files.get(file) ?? gone;
  if (at === undefined) return name;
  const page = /^page=(\d+)/.exec(at)?.[1];
  if (page) return `${name}, page ${page}`;
  return `${name}, “${inFiles?.get(inFileKey(file, at)) ?? placeCalled(at)}”`;
}

/** What a place of a file is called where only its address is known: by the name in that, or the last id on the way to it. */
function placeCalled(at: string): string {
  const name = percentDecoded(at.replace(/^nameddest=/, ""));
  return name.startsWith("epubcfi(") ? (/\[([^[\]]+)\][^[\]]*$/.exec(name)?.[1] ?? "a place") : name;
}

/** File: a companion file, one in a shared folder, or one that was not brought along. */
export const file: DestinationKindOf<FileDestination> = {
  schemes: [],
  becomes: "Lead to the file in the folder “files” beside it; both go out in one folder (zip).",
  assert: (given, text) => {
    if (given["file"] !== undefined) {
      if (!/^[\w-]{1,64}$/.test(text("file")))
        throw new DestinationError("address", "A companion file is named by its id.");
      if (given["at"] !== undefined && !/^[^\s#]+$/.test(text("at")))
        throw new DestinationError("address", "A page or place in a file is named without blanks.");
    } else if (given["share"] !== undefined) {
      webDestination(text("share"));
    } else if (schemeOf(text("path")) !== null) {
      throw new DestinationError("scheme", "A file destination is a relative path.");
    } else if (isNetworkPath(text("path"))) throw new DestinationError("address", networkFolder);
  },
  write: (to) =>
    "file" in to ? `companion:${to.file}${behindPath(to.at)}` : "share" in to ? to.share : to.path,
  name: (to, names) => ("file" in to ? fileWords(to.file, to.at, names) : "share" in to ? to.share : to.path),
  short: (to, names) =>
    "file" in to ? fileWords(to.file, to.at, names) : "share" in to ? hostOf(to.share) : to.path,
  asked: (to) => ("share" in to ? askedOfWeb(to.share) : null),
  outside: (to) => {
    if ("share" in to) return { kind: "address", address: to.share };
    if ("file" in to) return { kind: "file", file: to.file, at: to.at ?? null };
    return {
      kind: "relative",
      path: to.path,
      reason: `The file “${to.path}” does not travel with the book. Give a web address, or bring the manuscript in with an address from which its relative links start.`,
    };
  },
};
