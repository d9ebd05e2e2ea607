import type { Node } from "prosemirror-model";
import type { Hotspot } from "../../manuscript/hotspot.ts";
import { linkMark, schema } from "../../manuscript/schema.ts";
import { FinishedPage } from "./finished-page.ts";
import { boxAround, topOfPage, type PdfLink, type PdfPage } from "./pdf-page.ts";

/**
 * The links and places of a page as a document of the one schema, so that the rules which look at manuscripts look at it
 * too: under the headings that the outline has there a paragraph for each link on words, in the order of the page, and one
 * with a picture, the page, of which the links that lie on no words are areas.
 */
export function pageAsDocument(page: PdfPage): Node {
  const part = new FinishedPage(page);
  const onWords = part.links().filter(({ text }) => text !== "");
  const areas = page.links.filter(({ words }) => words === "").map((link) => areaOf(link, page));
  const spots = page.places.filter(({ of }) => of !== "outline");
  const paragraphs = [
    spots.map(({ id, name }) => schema.node("anchor", { id, name: name || part.title })),
    ...onWords.map(({ id, text, destination, description }) => {
      const mark = linkMark({ id, destination, description, asText: false, look: null, newWindow: false });
      return [schema.text(text, [mark])];
    }),
    areas.length > 0
      ? [schema.node("picture", { alt: part.title, hotspots: areas.slice(0, mostAreas) })]
      : [],
  ].filter((content) => content.length > 0);
  return schema.node("doc", null, [
    schema.node("title", { id: topOfPage(page.number) }, [schema.text(part.title)]),
    ...page.places
      .filter(({ of }) => of === "outline")
      .map(({ id, level, name }) =>
        schema.node("heading", { id, level: Math.min(Math.max(level ?? 1, 1), 4) }, [schema.text(name)]),
      ),
    ...(paragraphs.length > 0 ? paragraphs : [[]]).map((content) => schema.node("paragraph", null, content)),
  ]);
}

/** As many areas as a picture can have. */
const mostAreas = 500;
const thickest = 20;

/** A link that lies on no words as an area of its page. */
function areaOf({ id, areas, destination, description, frame }: PdfLink, { box }: PdfPage): Hotspot {
  const [left, low, right, high] = boxAround(areas);
  const share = (at: number, from: number, to: number): number =>
    Math.min(1, Math.max(0, (at - from) / Math.max(1, to - from)));
  return {
    id,
    shape: "rectangle",
    points: [
      [share(left, box[0], box[2]), 1 - share(high, box[1], box[3])],
      [share(right, box[0], box[2]), 1 - share(low, box[1], box[3])],
    ],
    destination,
    alt: (description ?? "").slice(0, 2_000),
    description: null,
    frame: { ...frame, thickness: Math.min(frame.thickness, thickest) },
  };
}
