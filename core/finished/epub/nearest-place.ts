import { percentDecoded } from "../../destination/percent-decoded.ts";
import { pathFrom } from "../../import/joined-pages.ts";
import { topOfEpubPage, type EpubPage } from "./epub-page.ts";

/** A place that an address may have meant, with what it is called. */
export interface NearestPlace {
  id: string;
  name: string;
}

/**
 * The place that an address which leads nowhere in an e-book most likely means: one of the same name but for case and the
 * signs between its words, on the page that it names or on the only page that has one; else that page, or one of the same
 * name in another folder. Null where none is likelier than others.
 * @param from the page on which the address stands
 */
export function nearestPlace(pages: readonly EpubPage[], from: EpubPage, href: string): NearestPlace | null {
  const inOrder = pages.filter(({ isInOrder }) => isInOrder);
  const path = href.startsWith("#") ? from.path : pathFrom(from.path, href);
  const named =
    inOrder.find((page) => page.path === path) ??
    only(inOrder.filter((page) => fileName(page.path) === fileName(path))) ??
    null;
  const wanted = plain(percentDecoded(/#(.+)$/s.exec(href)?.[1] ?? ""));
  const alike = (page: EpubPage): NearestPlace[] =>
    wanted === ""
      ? []
      : page.places.filter(({ fragment }) => fragment !== null && plain(fragment) === wanted);
  const place = (named && only(alike(named))) ?? only(inOrder.flatMap(alike));
  if (place) return { id: place.id, name: place.name };
  // The page from which it comes is no answer.
  return named && named !== from ? { id: topOfEpubPage(named.number), name: named.title } : null;
}

function only<T>(all: readonly T[]): T | null {
  return all.length === 1 ? all[0]! : null;
}

function fileName(path: string): string {
  return path.split("/").at(-1)!.toLowerCase();
}

function plain(fragment: string): string {
  return fragment.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");
}
