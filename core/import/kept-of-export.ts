import type { Element, ElementContent } from "hast";
import { isSaid } from "./hast-to-manuscript/carried.ts";
import { allElements, element } from "./hast-nodes.ts";
import { assertMath, type MathElement } from "../manuscript/math.ts";

/** What an export keeps of what it has wrapped by a tag, as properties of HTML; null for a tag that is none of ours. */
export function keptBy(tag: string, kept: ReadonlyMap<string, string>): Element["properties"] | null {
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

/** What is wrapped so, with what is kept of it: on the one link, picture or paragraph in it, or on an element around. */
export function withKept(
  content: ElementContent[],
  kept: Element["properties"],
  around: "div" | "span",
  paragraph: number,
): ElementContent[] {
  if ("dataBreak" in kept) return [element("hr", {}, [], paragraph)];
  if (kept["dataPart"] === "listing") return [listingOf(kept["dataOf"], content, paragraph)];
  if ("dataPart" in kept) return [partOf(String(kept["dataPart"]), content, paragraph)];
  if ("dataMath" in kept) return [mathOf(kept, content, paragraph)];
  if ("dataWidth" in kept || "dataDecorative" in kept) {
    const [picture] = content.flatMap((one) =>
      one.type === "element" ? [one, ...allElements(one)].filter(({ tagName }) => tagName === "img") : [],
    );
    Object.assign(picture?.properties ?? {}, kept);
    return content;
  }
  if ("dataItem" in kept) return content;
  const [only] = content;
  const isAlone = content.length === 1 && only?.type === "element" && /^(a|img|p)$/.test(only.tagName);
  if (isAlone && !("dataMade" in kept) && !("dataSignposts" in kept)) {
    Object.assign(only.properties, kept);
    return content;
  }
  return [element(around, kept, content, paragraph)];
}

const partElements: Readonly<Record<string, string>> = {
  definitions: "dl",
  term: "dt",
  definition: "dd",
  credit: "p",
  "page-break": "div",
};

/** What exports call a part of the text, as the element that it is. */
function partOf(part: string, content: ElementContent[], paragraph: number): Element {
  if (part === "page-break") return element("div", { dataPart: part }, [], paragraph);
  const wordsOnly = part === "term" || part === "credit";
  const children = content.flatMap((one): ElementContent[] => {
    if (one.type !== "element") return [one];
    // Paragraphs that look like a quotation's have been put into one.
    const isLook = one.tagName === "blockquote" && one.properties["dataPart"] === undefined;
    return isLook || (wordsOnly && one.tagName === "p") ? one.children : [one];
  });
  return element(partElements[part] ?? "blockquote", { dataPart: part }, children, paragraph);
}

/** A listing of its own: others beside it would join it by their look. */
function listingOf(language: unknown, content: ElementContent[], paragraph: number): Element {
  const lines = content.flatMap((one) =>
    one.type === "element" && one.tagName === "pre" ? one.children : [one],
  );
  const named = typeof language === "string" ? { className: [`language-${language}`] } : {};
  return element("pre", {}, [element("code", named, lines, paragraph)], paragraph);
}

/** A formula as the export had it, where it can be read; else as the document has it. */
function mathOf(kept: Element["properties"], content: ElementContent[], paragraph: number): Element {
  const display = kept["dataDisplay"] === undefined ? {} : { display: "block" };
  const known = treeOf(parsedMath(String(kept["dataMath"])), paragraph);
  const [only] = content;
  if (known) {
    const math = { ...known, properties: display };
    return only?.type === "element" && only.tagName === "a" ? { ...only, children: [math] } : math;
  }
  return element("span", {}, content, paragraph);
}

function parsedMath(said: string): unknown {
  try {
    return JSON.parse(said);
  } catch {
    return null;
  }
}

function treeOf(math: unknown, paragraph: number): Element | null {
  try {
    assertMath(math);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return null;
  }
  const made = ({ name, attributes = {}, children }: MathElement): Element =>
    element(
      name,
      { ...attributes },
      children.map((child) => (typeof child === "string" ? { type: "text", value: child } : made(child))),
      paragraph,
    );
  return made(math);
}
