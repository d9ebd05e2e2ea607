import type { Node } from "prosemirror-model";
import { noFrame, type Hotspot } from "../../manuscript/hotspot.ts";
import { linkMark, schema } from "../../manuscript/schema.ts";
import { topOfEpubPage, type EpubLink, type EpubPage } from "./epub-page.ts";

/** As many areas as a picture can have. */
const mostAreas = 500;

/**
 * The links and places of a page of an e-book as a document of the one schema, so that the rules which look at manuscripts
 * look at it too: under each heading a paragraph for every link, of those on pictures a picture. Ways to notes and back,
 * and entries of the navigation, are the file’s own: of them only those are there that lead nowhere.
 */
export function chapterAsDocument(page: EpubPage): Node {
  const links = page.links.filter((link) => !isOwnOfFile(link, page) || leadsNowhere(link));
  const headings = page.places.filter(({ of }) => of === "heading");
  const anchors = page.places.filter(({ of }) => of === "element");
  const areas = links.filter(({ on }) => on.kind === "area").slice(0, mostAreas);
  const areaPicture = schema.node("picture", { alt: page.title, hotspots: areas.map(areaOf) });
  const first = [
    ...anchors.map(({ id, name }) => schema.node("anchor", { id, name })),
    ...(areas.length > 0 ? [areaPicture] : []),
  ];
  const blocks = [
    ...headings.map((place) => ({ element: place.element, node: headingOf(place) })),
    ...links
      .filter(({ on }) => on.kind !== "area")
      .map((link) => ({ element: link.on.element, node: schema.node("paragraph", null, [contentOf(link)]) })),
  ].sort((a, b) => a.element - b.element);
  return schema.node("doc", null, [
    schema.node("title", { id: topOfEpubPage(page.number) }, page.title ? [schema.text(page.title)] : []),
    schema.node("paragraph", null, first),
    ...blocks.map(({ node }) => node),
  ]);
}

function isOwnOfFile({ isNoteSign }: EpubLink, { isNavigation }: EpubPage): boolean {
  return isNoteSign || isNavigation;
}

function leadsNowhere({ destination }: EpubLink): boolean {
  return destination.kind === "place" && destination.target === "nowhere";
}

function headingOf({ id, level, name }: EpubPage["places"][number]): Node {
  return schema.node("heading", { id, level: Math.min(Math.max(level ?? 1, 1), 4) }, [schema.text(name)]);
}

function contentOf({ id, on, words, destination, description }: EpubLink): Node {
  const mark = linkMark({ id, destination, description, asText: false, look: null, newWindow: false });
  return on.kind === "picture" || words === ""
    ? schema.node("picture", { alt: words.slice(0, 2_000) }, undefined, [mark])
    : schema.text(words, [mark]);
}

/** An area of which the file tells its corners in numbers of its own; where it lies is of no matter to the rules. */
function areaOf({ id, words, destination, description }: EpubLink, i: number): Hotspot {
  const top = i / mostAreas;
  return {
    id,
    shape: "rectangle",
    points: [
      [0, top],
      [1, top + 1 / mostAreas],
    ],
    destination,
    alt: words.slice(0, 2_000),
    description,
    frame: noFrame,
  };
}
