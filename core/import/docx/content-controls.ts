import type { Element, ElementContent } from "hast";
import { isSaid } from "../hast-to-manuscript/carried.ts";
import { allElements, element } from "../hast-nodes.ts";
import { childOf, valueOf, type XmlElement } from "../xml-tree.ts";

/** What a content control keeps of what is in it, as properties of HTML; null for one that is no export's of ours. */
export function keptBy(control: XmlElement, kept: ReadonlyMap<string, string>): Element["properties"] | null {
  const tag = valueOf(childOf(control, "sdtPr"), "tag") ?? "";
  if (tag === "vennet-made") return { dataMade: "" };
  const said = kept.get(tag);
  if (said === undefined) return null;
  try {
    const values: unknown = JSON.parse(said);
    if (values === null || typeof values !== "object") return null;
    const named = Object.entries(values).map(([name, value]): [string, string] => [
      `data-${name}`.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase()),
      String(value),
    ]);
    return Object.fromEntries(named.filter(([name]) => isSaid(name)));
  } catch {
    return null;
  }
}

/** What is in a control, with what is kept of it: on the one link, picture or paragraph in it, or on an element around. */
export function withKept(
  content: ElementContent[],
  kept: Element["properties"],
  around: "div" | "span",
  paragraph: number,
): ElementContent[] {
  if ("dataBreak" in kept) return [element("hr", {}, [], paragraph)];
  if ("dataWidth" in kept || "dataDecorative" in kept) {
    const [picture] = content.flatMap((one) =>
      one.type === "element" ? [one, ...allElements(one)].filter(({ tagName }) => tagName === "img") : [],
    );
    Object.assign(picture?.properties ?? {}, kept);
    return content;
  }
  const [only] = content;
  const isAlone = content.length === 1 && only?.type === "element" && /^(a|img|p)$/.test(only.tagName);
  if (isAlone && !("dataMade" in kept) && !("dataSignposts" in kept)) {
    Object.assign(only.properties, kept);
    return content;
  }
  return [element(around, kept, content, paragraph)];
}
