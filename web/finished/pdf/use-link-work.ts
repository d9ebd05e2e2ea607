import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { wordsAt } from "@vennet/core/finished/pdf/letters";
import { spotId, topOfPage, type PdfLink, type PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { noFrame, type Frame } from "@vennet/core/manuscript/hotspot";
import { newId } from "@vennet/core/manuscript/ids";
import { useState } from "react";
import { plural } from "../../parts/wording";
import type { TakenLine } from "../../write/links/link-line";
import type { CardWork } from "../finished-card";
import type { Picked } from "./picked";
import type { ShownPage } from "./shown-page";
import type { KeptPage, Pages } from "../use-pages";

/** What the link line is open for: picked words or an area, or a link that is there. */
export type Leading = { picked: Picked } | { link: PdfLink };

/** What is done to links of the page that is shown. */
export interface LinkWork {
  leading: Leading | null;
  setLeading: (to: Leading | null) => void;
  /** Whether a press on a page says where a link leads. */
  isPointing: boolean;
  /** Lets the author point at the place to which what the link line is open for is to lead. */
  beginPointing: () => void;
  stopPointing: () => void;
  takeLine: (taken: TakenLine) => void;
  pointAt: (x: number, y: number) => void;
  move: (link: PdfLink, areas: PdfLink["areas"]) => void;
  /** Gives a link that stayed as it is another destination. @param from its annotation */
  replaceUntouched: (from: string) => void;
  frame: (link: PdfLink, frame: Frame) => void;
  /** Puts the same link at the same place of pages behind. */
  copy: (link: PdfLink, pages: number) => void;
  work: CardWork<PdfLink>;
}

/** Makes, leads, describes, frames, moves and takes out links of a page, each as one thing that undo takes back. */
export function useLinkWork({
  pages,
  number,
  change,
  shown,
  turnTo,
  select,
  tell,
}: {
  pages: readonly KeptPage<PdfPage>[];
  number: number;
  change: Pages<PdfPage>["change"];
  shown: ShownPage | null;
  turnTo: (page: number) => void;
  select: (id: string | null) => void;
  /** Says something to those who do not see the page. */
  tell: (words: string) => void;
}): LinkWork {
  const page = pages[number - 1]!.document;
  const [leading, setLeading] = useState<Leading | null>(null);
  /** For what the author is to point at a place; the page on which it was asked. */
  const [pointing, setPointing] = useState<(Leading & { from: number }) | null>(null);

  const withLink = (link: PdfLink, part: Partial<PdfLink>): PdfPage => ({
    ...page,
    links: page.links.map((one) => (one.id === link.id ? { ...one, ...part } : one)),
  });
  const lead = (
    to: Leading,
    destination: Destination,
    description: string | null,
    more: readonly PdfPage[] = [],
  ): void => {
    // The page may have been turned since the place was asked for.
    const home = pages[(pointing?.from ?? number) - 1]!.document;
    if ("link" in to) {
      const next = { ...to.link, destination, description };
      const same = home.links.map((one) => (one.id === next.id ? next : one));
      change(
        merged([{ ...home, links: same }, ...more]),
        `“${to.link.words || "The area"}” leads elsewhere.`,
      );
      select(to.link.id);
    } else {
      const { areas, words: under } = to.picked;
      const link: PdfLink = {
        id: newId(),
        from: null,
        isInStructure: true,
        words: under,
        areas,
        destination,
        description,
        frame: noFrame,
      };
      change(merged([{ ...home, links: [...home.links, link] }, ...more]), `Linked “${under || "an area"}”.`);
      select(link.id);
    }
    setLeading(null);
  };
  const takeLine = (taken: TakenLine): void => {
    if (leading) lead(leading, taken.destination, taken.description);
  };
  const pointAt = (x: number, y: number): void => {
    if (!pointing) return;
    const id = spotId(number, x, y);
    const [px, py] = [Math.round(x), Math.round(y)];
    const isThere = page.places.some((one) => one.id === id);
    const name = shown ? wordsAt(shown.letters, px, py) : "";
    const spot = { id, of: "spot" as const, level: null, name, x: px, y: py };
    const here = pointing.from === number;
    const target: PdfPage = { ...page, places: isThere ? page.places : [...page.places, spot] };
    const description = "link" in pointing ? pointing.link.description : null;
    const { from } = pointing;
    setPointing(null);
    lead(pointing, { kind: "place", target: id }, description, [target]);
    if (!here) turnTo(from);
  };

  const work: CardWork<PdfLink> = {
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
      const there = pages.find(
        ({ document }) =>
          topOfPage(document.number) === destination.target ||
          document.places.some(({ id }) => id === destination.target),
      );
      if (there) turnTo(there.document.number);
    },
    remove: (link) => {
      change([{ ...page, links: page.links.filter(({ id }) => id !== link.id) }], "Removed a link.");
      select(null);
    },
  };
  const copy = (link: PdfLink, count: number): void => {
    const further = pages.slice(number, number + count).map(({ document }) => ({
      ...document,
      links: [...document.links, { ...link, id: newId(), from: null, words: "", isInStructure: true }],
    }));
    change(further, `Copied a link to ${plural(count, "page")}.`);
    tell(`The link is on ${plural(count, "further page")} too.`);
  };
  const replaceUntouched = (from: string): void => {
    const old = page.untouched.find((one) => one.from === from);
    if (!old?.areas) return;
    const link: PdfLink = {
      id: newId(),
      from,
      words: old.words,
      areas: old.areas,
      destination: { kind: "place", target: topOfPage(number) },
      description: null,
      frame: noFrame,
      isInStructure: true,
    };
    const untouched = page.untouched.filter((one) => one.from !== from);
    change([{ ...page, untouched, links: [...page.links, link] }], "Took a link over.");
    select(link.id);
    setLeading({ link });
  };

  return {
    leading,
    setLeading,
    isPointing: pointing !== null,
    beginPointing: () => {
      if (leading) setPointing({ ...leading, from: number });
      setLeading(null);
    },
    stopPointing: () => setPointing(null),
    takeLine,
    pointAt,
    move: (link, areas) => change([withLink(link, { areas })], "Moved a link."),
    frame: (link, frame) => change([withLink(link, { frame })], "Framed a link."),
    copy,
    replaceUntouched,
    work,
  };
}

/** Of several states of one page one that has the links and places of all. */
function merged(all: readonly PdfPage[]): PdfPage[] {
  const byNumber = new Map<number, PdfPage>();
  for (const page of all) {
    const there = byNumber.get(page.number);
    const known = new Set(there?.places.map(({ id }) => id));
    byNumber.set(
      page.number,
      there
        ? { ...there, places: [...there.places, ...page.places.filter(({ id }) => !known.has(id))] }
        : page,
    );
  }
  return [...byNumber.values()];
}
