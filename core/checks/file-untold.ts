import type { Destination } from "../destination/kinds/kinds.ts";
import { urlOf } from "../destination/url-of.ts";
import type { CheckContext, BookRule } from "./finding.ts";

/** A link to a file that does not say that it is one. */
export const fileUntold: BookRule = {
  id: "file-untold",
  title: "A file is not announced",
  severity: "consider",
  source: "WCAG technique G91 and H33 (from memory): type and size of a file are told before it is opened",
  findInBook: ({ text, description, destination }, { files }) => {
    const type = typeOf(destination, files);
    return type === null || isTold(type, text, description)
      ? null
      : `This opens a file. Say so in the words or the description, as in “(${type.toUpperCase()})”.`;
  },
};

/** Endings of names of files that open another program, and other words by which they are told (common practice). */
const told: Record<string, string> = {
  pdf: "",
  doc: "word|document",
  docx: "word|document",
  odt: "document",
  rtf: "",
  xls: "excel|spreadsheet",
  xlsx: "excel|spreadsheet",
  ods: "spreadsheet",
  ppt: "powerpoint|slides|presentation",
  pptx: "powerpoint|slides|presentation",
  odp: "slides|presentation",
  zip: "archive|packed",
  "7z": "archive|packed",
  gz: "archive|packed|tarball",
  tgz: "archive|packed|tarball",
  rar: "archive|packed",
  tar: "archive|packed|tarball",
  epub: "e-?book",
  csv: "spreadsheet",
  tif: "tiff",
  tiff: "tif",
  gpx: "track",
  kml: "",
  kmz: "",
  ics: "calendar",
  mp3: "audio|sound|recording|podcast",
  wav: "audio|sound|recording",
  mp4: "video|film|movie",
  mov: "video|film|movie",
};

/** With its full stop. */
const longestEnding = ".docx".length;

/** The ending of the file's name, where it is of a kind that opens another program. */
function typeOf(destination: Destination, files: CheckContext["files"]): string | null {
  const name =
    destination.kind === "web"
      ? urlOf(destination).pathname
      : destination.kind === "file" && "file" in destination
        ? (files.get(destination.file)?.name ?? "")
        : "";
  const dot = name.lastIndexOf(".");
  const ending = dot === -1 || name.length - dot > longestEnding ? "" : name.slice(dot + 1).toLowerCase();
  return Object.hasOwn(told, ending) ? ending : null;
}

function isTold(type: string, text: string, description: string | null): boolean {
  const others = told[type] ? `|${told[type]}` : "";
  return new RegExp(`(?<![a-z])(?:${type}${others})s?(?![a-z])`, "i").test(`${text} ${description ?? ""}`);
}
