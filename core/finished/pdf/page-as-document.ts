import type { Node } from "prosemirror-model";
import { linkMark, schema } from "../../manuscript/schema.ts";
import { FinishedPage } from "./finished-page.ts";
import { topOfPage, type PdfPage } from "./pdf-page.ts";

/**
 * The links and places of a page as a document of the one schema, so that the rules which look at manuscripts look at it
 * too: a paragraph for each link, in the order of the page, under the headings that the outline has there.
 */
export function pageAsDocument(page: PdfPage): Node {
  const part = new FinishedPage(page);
  const headings = page.places.filter(({ of }) => of === "outline");
  const spots = page.places.filter(({ of }) => of !== "outline");
  const links = part.links().map(({ id, text, destination, description }) => {
    const mark = linkMark({ id, destination, description, asText: false, look: null, newWindow: false });
    // What lies on a picture or on nothing has no words but what is said of it.
    return schema.node("paragraph", null, [schema.text(text || description || "\u00a0", [mark])]);
  });
  const anchors = spots.map(({ id, name }) =>
    schema.node("anchor", { id, name: name || `Spot of ${part.title}` }),
  );
  return schema.node("doc", null, [
    schema.node("title", { id: topOfPage(page.number) }, [schema.text(part.title)]),
    ...headings.map(({ id, level, name }) =>
      schema.node("heading", { id, level: Math.min(Math.max(level ?? 1, 1), 4) }, [schema.text(name)]),
    ),
    ...(anchors.length > 0 ? [schema.node("paragraph", null, anchors)] : []),
    ...links,
    ...(links.length + anchors.length === 0 ? [schema.node("paragraph")] : []),
  ]);
}
