import { nameDestination } from "../destination/destination.ts";
import { hasPlace } from "../manuscript/file-places.ts";
import { companionOf, type BookRule } from "./finding.ts";

/** A link to a page or place that its companion file does not have, as after another file was put in its place. */
export const filePlaceGone: BookRule = {
  id: "file-place-gone",
  title: "A page or place in a file is gone",
  severity: "fix",
  source: "RFC 8118: a fragment names a page or a destination of the file",
  findInBook: (link, context) => {
    const { destination } = link;
    const file = companionOf(link, context);
    if (destination.kind !== "file" || !("at" in destination) || !destination.at) return null;
    if (!file?.places || hasPlace(file.places, destination.at)) return null;
    const { pages } = file.places;
    const wanted = nameDestination(destination, { files: new Map(), places: new Map() }).replace(
      /^.*?, /,
      "",
    );
    const has = pages === null ? "" : ` among its ${pages === 1 ? "one page" : `${pages} pages`}`;
    return `“${file.name}” has no ${wanted}${has}. Choose where in it the link leads.`;
  },
};
