import type { Destination } from "@vennet/core/destination/kinds/kinds";
import {
  elementPlaceId,
  placesOfEpub,
  type EpubLink,
  type EpubPage,
  type EpubPlace,
  type UntouchedEpubLink,
} from "@vennet/core/finished/epub/epub-page";
import { groundIn, stretchesOfLinks } from "@vennet/core/finished/epub/ground";
import { nearestPlace } from "@vennet/core/finished/epub/nearest-place";
import { linkElements } from "@vennet/core/finished/epub/xhtml-source";
import { useState } from "react";
import type { TakenLine } from "../../write/links/link-line";
import type { CardWork } from "../finished-card";
import type { KeptPage, Pages } from "../use-pages";
import { newLink } from "./bare-in-text";
import type { OpenBook } from "./open-book";
import type { PickedText } from "./page-map";

/** What the link line is open for: picked words or a picture, a link that is there, or one that stayed as the file has it. */
export type Leading = { picked: PickedText } | { link: EpubLink } | { staying: UntouchedEpubLink };

/** What a link is to lie on, or lies on, with its words. */
export function picksOf(leading: Leading): PickedText {
  return "picked" in leading ? leading.picked : "link" in leading ? leading.link : leading.staying;
}

/** What is done to links of the page that is shown. */
export interface TextWork {
  leading: Leading | null;
  setLeading: (to: Leading | null) => void;
  /** Opens the link line for what was picked, where a link can lie on it. */
  pick: (picked: PickedText) => void;
  isPointing: boolean;
  beginPointing: () => void;
  stopPointing: () => void;
  takeLine: (taken: TakenLine) => void;
  pointAt: (place: { element: number; words: string }) => void;
  say: (link: EpubLink, words: string) => void;
  /** What a link that leads nowhere may have meant, and how it is led there. */
  nearest: (link: EpubLink) => { name: string; lead: () => void } | null;
  replaceUntouched: (from: number) => void;
  work: CardWork<EpubLink>;
}

/** Makes, leads, describes, rewords and takes out links of a page, each as one thing that undo takes back. */
export function useTextWork({
  book,
  pages,
  number,
  change,
  goTo,
  select,
  tell,
}: {
  book: OpenBook;
  pages: readonly KeptPage<EpubPage>[];
  number: number;
  change: Pages<EpubPage>["change"];
  /** Shows a page, and an element of it. */
  goTo: (page: number, element: number | null) => void;
  select: (id: string | null) => void;
  /** Says what cannot be done. */
  tell: (problem: string) => void;
}): TextWork {
  const page = pages[number - 1]!.document;
  const [leading, setLeading] = useState<Leading | null>(null);
  /** For what the author is to point at a place; the page on which it was asked. */
  const [pointing, setPointing] = useState<(Leading & { from: number }) | null>(null);

  const withLink = (link: EpubLink, part: Partial<EpubLink>): EpubPage => ({
    ...page,
    links: page.links.map((one) => (one.id === link.id ? { ...one, ...part } : one)),
  });
  const lead = (
    to: Leading,
    destination: Destination,
    description: string | null,
    target: EpubPage | null = null,
  ): void => {
    // The page may have been turned since the place was asked for.
    const at = pointing?.from ?? number;
    const home = target?.number === at ? target : pages[at - 1]!.document;
    const { words } = picksOf(to);
    const told = words || "a picture";
    const more = target && target.number !== at ? [target] : [];
    if ("link" in to) {
      const led = { ...to.link, destination, description };
      const links = home.links.map((one) => (one.id === led.id ? led : one));
      change([{ ...home, links }, ...more], `“${told}” leads elsewhere.`);
      select(led.id);
    } else {
      const fresh = newLink(picksOf(to), destination, description);
      const from = "staying" in to ? to.staying.from : null;
      const href = "staying" in to ? to.staying.href : null;
      const untouched = home.untouched.filter((one) => one.from !== from);
      change(
        [{ ...home, untouched, links: [...home.links, { ...fresh, from, href }] }, ...more],
        `Linked “${told}”.`,
      );
      select(fresh.id);
    }
    setLeading(null);
  };
  const takeLine = ({ destination, description }: TakenLine): void => {
    if (!leading) return;
    if (destination.kind === "file")
      tell(
        "Reading programs do not leave an e-book for a file beside it. Lead the link to the file’s address on the web.",
      );
    else lead(leading, destination, description);
  };
  const pointAt = ({ element, words }: { element: number; words: string }): void => {
    if (!pointing) return;
    if (!page.isInOrder || page.stays !== null) {
      tell("No link may lead to this page: it is not read in order, or stays as it is.");
      return;
    }
    const known = page.places.find((place) => place.element === element);
    const place: EpubPlace = known ?? {
      id: elementPlaceId(number, element),
      of: "element",
      level: null,
      name: words.slice(0, 120) || "A picture",
      element,
      fragment: null,
    };
    const target = known ? null : { ...page, places: [...page.places, place] };
    const description = "link" in pointing ? pointing.link.description : null;
    const { from } = pointing;
    lead(pointing, { kind: "place", target: place.id }, description, target);
    setPointing(null);
    if (from !== number) goTo(from, null);
  };
  const pick = (picked: PickedText): void => {
    const source = book.source(page.path);
    const fresh = page.links.filter(({ from }) => from === null).map(({ on }) => on);
    try {
      if (page.stays !== null) throw new Error(page.stays);
      if (
        fresh.some(({ from, to, element, kind }) =>
          kind === "words" ? from < picked.on.to && to > picked.on.from : element === picked.on.element,
        )
      )
        throw new Error(`“${picked.words}” is in a link already.`);
      groundIn(source, stretchesOfLinks(linkElements(source), page), picked);
    } catch (error) {
      setLeading(null);
      tell((error as Error).message);
      return;
    }
    tell("");
    select(null);
    setLeading({ picked });
  };

  const work: CardWork<EpubLink> = {
    select: (id) => {
      select(id);
      setLeading(null);
    },
    describe: (link, description) => change([withLink(link, { description })], "Described a link."),
    lead: (link) => setLeading({ link }),
    point: (link) => {
      setLeading(null);
      setPointing({ link, from: number });
    },
    goThere: ({ destination }) => {
      if (destination.kind !== "place") return;
      const there = placesOfEpub(pages.map(({ document }) => document)).get(destination.target);
      if (there) goTo(there.page.number, there.place?.element ?? null);
    },
    remove: (link) => {
      change([{ ...page, links: page.links.filter(({ id }) => id !== link.id) }], "Removed a link.");
      select(null);
    },
  };
  const replaceUntouched = (from: number): void => {
    const staying = page.untouched.find((one) => one.from === from);
    if (staying) setLeading({ staying });
  };

  return {
    leading,
    setLeading,
    pick,
    isPointing: pointing !== null,
    beginPointing: () => {
      if (leading) setPointing({ ...leading, from: number });
      setLeading(null);
    },
    stopPointing: () => setPointing(null),
    takeLine,
    pointAt,
    say: (link, words) => change([withLink(link, { words })], "Changed the words of a link."),
    nearest: (link) => {
      const documents = pages.map(({ document }) => document);
      const place = link.href === null ? null : nearestPlace(documents, page, link.href);
      return (
        place && {
          name: place.name,
          lead: () => lead({ link }, { kind: "place", target: place.id }, link.description),
        }
      );
    },
    replaceUntouched,
    work,
  };
}
