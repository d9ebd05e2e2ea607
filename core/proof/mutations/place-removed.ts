import type { Mutation } from "./mutation.ts";
import { anchorsInUse, bookmarksInUse, odtPlacesInUse } from "./opened/text-links.ts";

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
    const { list, write } = file.names();
    const at = pick(file.namesInUse());
    if (at === undefined) return false;
    write(list.toSpliced(at, 2));
    return true;
  },
  markdown(file, pick) {
    const place = pick(anchorsInUse(file));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
  docx(file, pick) {
    const place = pick(bookmarksInUse(file));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
  odt(file, pick) {
    const place = pick(odtPlacesInUse(file));
    if (place) file.replace(place, "");
    return place !== undefined;
  },
};
