import { semanticsOf } from "../semantics.ts";
import type { Element, ElementContent } from "hast";
import { isSetOff, type SetOff } from "../../manuscript/set-off.ts";

/** What says of an element that it is set off: its role (DPUB-ARIA 1.1), its type (EPUB SSV 1.1), or its class (common practice). */
const byName: Readonly<Record<string, SetOff>> = {
  "doc-epigraph": "epigraph",
  epigraph: "epigraph",
  verse: "verse",
  poem: "verse",
  poetry: "verse",
  "z3998:verse": "verse",
  "z3998:poem": "verse",
  note: "notice",
  "doc-notice": "notice",
  "doc-tip": "notice",
  notice: "notice",
  admonition: "notice",
};
/** Notes that are called from the text often have this class. */
const notByClass = new Set(["note"]);
const holders = new Set(["blockquote", "div", "section", "aside"]);

/** As what an element is set off from the text around it; null where it is not. */
export function setOffOfElement(element: Element): SetOff | null {
  const { tagName, properties } = element;
  if (!holders.has(tagName)) return null;
  const part = properties["dataPart"];
  if (isSetOff(part)) return part;
  const classes = [properties["className"]]
    .flat()
    .flatMap((one) => (typeof one === "string" ? one.toLowerCase().split(/\s+/) : []))
    .filter((name) => !notByClass.has(name));
  const found = [...semanticsOf(element), ...classes].find((name) => Object.hasOwn(byName, name));
  return found !== undefined ? byName[found]! : tagName === "blockquote" ? "quotation" : null;
}

/** Takes the sign of a task off the beginning of an item. @returns whether it is done; null for what is no task */
export function taskOfItem(item: Element): boolean | null {
  const at = item.children.findIndex((child) => child.type !== "text" || child.value.trim() !== "");
  const first = item.children[at];
  if (first?.type !== "element") return null;
  const done = doneBy(first);
  if (done === null) return first.tagName === "p" || first.tagName === "label" ? taskOfItem(first) : null;
  item.children.splice(at, 1);
  return done;
}

function doneBy({ tagName, properties }: Element): boolean | null {
  if (properties["dataDone"] !== undefined) return properties["dataDone"] === "true";
  return tagName === "input" && properties["type"] === "checkbox" ? properties["checked"] === true : null;
}

/** Takes the credits out of a figure. */
export function withoutCredits(children: readonly ElementContent[]): {
  rest: ElementContent[];
  credits: Element[];
} {
  const credits: Element[] = [];
  const rest = children.flatMap((child): ElementContent[] => {
    if (child.type !== "element") return [child];
    if (isCredit(child)) {
      credits.push(child);
      return [];
    }
    if (child.tagName !== "figcaption" && child.tagName !== "div") return [child];
    const inside = withoutCredits(child.children);
    credits.push(...inside.credits);
    return [{ ...child, children: inside.rest }];
  });
  return { rest, credits };
}

/** Whether an element tells to whom a picture belongs: as exports say it, or by its class (common practice). */
export function isCredit({ tagName, properties }: Element): boolean {
  if (properties["dataPart"] === "credit") return true;
  const classes = [properties["className"]].flat().map(String);
  return (
    ["p", "span", "small", "cite", "div"].includes(tagName) &&
    classes.some((name) => /^(credit|attribution|photo-credit|image-credit)$/i.test(name))
  );
}

/** Whether an element begins a page by its style (CSS Fragmentation 3, 3.1; the older name, too). */
export function beginsPage({ properties }: Element): boolean {
  return /(?:^|;)\s*(?:page-)?break-before\s*:\s*(?:always|page)/i.test(String(properties["style"] ?? ""));
}
