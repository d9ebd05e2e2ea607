import { PdfString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** What leads there leads nowhere. */
export const placeRemoved: Mutation = {
  name: "a place removed to which links lead",
  pages(file, pick) {
    const used = new Set(file.ownLinks().map(({ href }) => href.split("#")[1]));
    const place = pick(file.find(file.pages, / id="([^"]+)"/).filter(({ match }) => used.has(match[1])));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
  pdf(file, pick) {
    const used = new Set(file.inward().map(({ dictionary }) => (dictionary.get("Dest") as PdfString).bytes));
    const { list, write } = file.names();
    const at = pick([...list.keys()].filter((i) => i % 2 === 0 && used.has((list[i] as PdfString).bytes)));
    if (at === undefined) return false;
    write(list.toSpliced(at, 2));
    return true;
  },
  markdown(file, pick) {
    const used = new Set(markdownLinks(file, /^#/).map(({ match }) => match[2]!.slice(1)));
    const anchors = file.find([file.pathOf(/\.md$/)!], /<a id="([^"]+)"><\/a>/);
    const place = pick(anchors.filter(({ match }) => used.has(match[1]!)));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const used = new Set(file.find([path], /w:anchor="([^"]*)"/).map(({ match }) => match[1]));
    const marks = file.find([path], /<w:bookmarkStart [^>]*w:name="([^"]*)"[^>]*\/>/);
    const place = pick(marks.filter(({ match }) => used.has(match[1])));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
};
