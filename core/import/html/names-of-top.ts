import { Parser } from "htmlparser2";
import type { Element } from "hast";
import { element } from "../hast-nodes.ts";

/** What may stand before a page's body, and shows nothing. */
const ofHead = new Set("html head title meta link base style script noscript template".split(" "));

/** The ids of a page's outermost elements, by which links lead to its top. */
export function namesOfTop(text: string): string[] {
  const names: string[] = [];
  let isDone = false;
  const parser = new Parser({
    onopentag: (name, { id }) => {
      if (isDone) return;
      if ((name === "html" || name === "body") && id) names.push(id);
      isDone = !ofHead.has(name);
      if (isDone) parser.reset();
    },
  });
  parser.end(text);
  return names;
}

/** Anchors of names of a page's top, for the beginning of a tree that has only what is within these elements. */
export function anchorsOfTop(names: readonly (string | undefined)[]): Element[] {
  return names.flatMap((id) => (id ? [element("a", { id, dataTop: true }, [], 1)] : []));
}
