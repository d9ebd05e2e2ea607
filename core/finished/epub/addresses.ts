import { kindOf, type Destination } from "../../destination/kinds/kinds.ts";
import { FinishedError } from "../errors.ts";
import { newFragment, type EpubPage, type EpubPlace, type PlaceInEpub } from "./epub-page.ts";

/**
 * The address that a link of a page has in the file: an address as it is, or the way to a page and what is named there.
 * @throws FinishedError `page` where the e-book cannot lead there
 */
export function addressIn(
  path: string,
  destination: Destination,
  places: ReadonlyMap<string, PlaceInEpub>,
): string {
  const outside = kindOf(destination).outside(destination);
  switch (outside.kind) {
    case "address":
      return outside.address;
    case "place": {
      const found = places.get(outside.target);
      if (!found) throw new FinishedError("page", "A link is led to a place that the e-book does not have.");
      return addressOfPlace(path, found);
    }
    case "file":
      throw new FinishedError(
        "page",
        "A link is led to a file beside the e-book, and no reading program goes there. Lead it to the file’s address on the web.",
      );
    case "relative":
      return outside.path;
  }
}

function addressOfPlace(path: string, { page, place }: PlaceInEpub): string {
  const fragment = place === null ? "" : `#${encodeURIComponent(fragmentOf(place, page))}`;
  return page.path === path && fragment !== "" ? fragment : relativePath(path, page.path) + fragment;
}

/** By what addresses name a place: as the file that came has it, else by a new name. */
export function fragmentOf(place: EpubPlace, page: EpubPage): string {
  return place.fragment ?? newFragment(place, page);
}

/** The way from one file of a container to another (RFC 3986, 4.2 and 5.2.4). */
function relativePath(from: string, to: string): string {
  const [folders, wanted] = [from.split("/").slice(0, -1), to.split("/")];
  let shared = 0;
  while (shared < folders.length && shared < wanted.length - 1 && folders[shared] === wanted[shared])
    shared++;
  return [...folders.slice(shared).map(() => ".."), ...wanted.slice(shared).map(encodeURIComponent)].join(
    "/",
  );
}
