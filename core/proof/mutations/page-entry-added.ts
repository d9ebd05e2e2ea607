import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

const ofPage: readonly [string, PdfValue][] = [
  ["Rotate", 90],
  ["UserUnit", 0.01],
  ["Dur", 1],
  ["CropBox", [0, 0, 50, 50]],
  ["Trans", new Map([["S", new PdfName("Fade")]])],
];
const ofFile: readonly [string, PdfValue][] = [
  ["URI", new Map([["Base", new PdfString("https://elsewhere.example/")]])],
  ["AcroForm", new Map([["Fields", []]])],
  ["Collection", new Map([["View", new PdfName("D")]])],
  ["NeedsRendering", true],
  ["PageMode", new PdfName("UseAttachments")],
  ["ViewerPreferences", new Map([["HideWindowUI", true]])],
  ["MarkInfo", new Map([["Marked", false]])],
];
const ofLink: readonly [string, PdfValue][] = [
  ["F", 4 + 8],
  ["F", 4 + 256],
  ["PA", new Map([["S", new PdfName("URI")]])],
  ["AP", new Map()],
  ["Border", [0, 0, 40]],
];

/** Readers' programs show it in another way, or do something else at a press. */
export const pageEntryAdded: Mutation = {
  name: "a page, link or file that is shown in another way",
  pdf(file, pick) {
    const link = pick(file.links());
    const [key, value] = pick([...ofPage, ...ofFile, ...ofLink])!;
    if (!link) return false;
    const holds = (list: readonly [string, PdfValue][]): boolean => list.some(([, one]) => one === value);
    file.set(holds(ofPage) ? link.page : holds(ofFile) ? file.catalog : link, key, value);
    return true;
  },
};
