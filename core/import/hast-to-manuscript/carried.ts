import type { Element, ElementContent, Root } from "hast";
import type { CrossReference, SignpostList } from "../../manuscript/attributes.ts";
import { assertConventions, type Conventions } from "../../manuscript/conventions.ts";
import { noFrame, type Frame } from "../../manuscript/hotspot.ts";
import { assertOwnLook, type OwnLook } from "../../manuscript/looks.ts";
import type { FoundArea } from "../areas.ts";
import { allElements } from "../hast-nodes.ts";

// What Vennet's exports say of themselves in `data-` attributes, for coming back: docs/formats.md lists them. Readers
// of other formats put the same into their trees.

/** How a link follows its target; `as-it-says` where the file does not tell in which of the ways. */
export interface Follows {
  form: CrossReference["form"] | "as-it-says";
  fallback: CrossReference["fallback"];
  /** Whether a press leads there in the file. */
  isJump: boolean;
}

const forms = new Set(["text", "number", "page", "page-and-text", "above-or-below", "as-it-says"]);

/** What exports say, and what readers note for themselves, as trees call it. */
const said = [
  "dataMade",
  "dataReference",
  "dataFallback",
  "dataSignposts",
  "dataScope",
  "dataDepth",
  "dataSection",
  "dataAnchors",
  "dataHeading",
  "dataReturn",
  "dataAnchor",
  "dataCaption",
  "dataLook",
  "dataNewWindow",
  "dataFile",
  "dataArea",
  "dataBreak",
  "dataFrame",
  "dataWidth",
  "dataDecorative",
  "dataLevel",
  "dataRole",
  "dataPart",
  "dataDone",
  "dataItem",
  "dataBegins",
  "dataOf",
  "dataMath",
  "dataDisplay",
];
const noted = ["dataLink", "dataAreas", "dataContents", "dataCounted", "dataNoJump", "dataNumbered"];

/** Whether a name is one of those that exports say; what readers note for themselves is none. */
export function isSaid(name: string): boolean {
  return said.includes(name);
}

/**
 * Takes away attributes of a page that only happen to be called like ours: what readers note for themselves, always, and
 * what exports say, unless the page is one.
 */
export function withoutOthersNames(tree: Root | Element, isOurs: boolean): void {
  for (const { properties } of allElements(tree))
    for (const name of isOurs ? noted : [...noted, ...said]) delete properties[name];
}

/** How a link follows its target; null for one whose words are its author’s. */
export function followsOf({ properties }: Element): Follows | null {
  const form = properties["dataReference"];
  if (typeof form !== "string" || !forms.has(form)) return null;
  const fallback = properties["dataFallback"] === "number" ? "number" : "text";
  return { form: form as Follows["form"], fallback, isJump: properties["dataNoJump"] === undefined };
}

/** The signpost list that an element is, with links for its section and anchors; null for any other. */
export function signpostsOfElement({ properties }: Element): Omit<SignpostList, "id"> | null {
  const words = (key: string): string | null =>
    typeof properties[key] === "string" ? properties[key] : null;
  const of = words("dataSignposts");
  if (of === null || !["contents", "questions", "figures", "tables", "anchors"].includes(of)) return null;
  const scope = words("dataScope") ?? "chapter";
  const depth = Math.trunc(Number(words("dataDepth") ?? 1));
  const isScope = scope === "book" || scope === "chapter" || scope === "section";
  const named = (href: string): string => href.replace(/^#/, "");
  const section = words("dataSection");
  return {
    of: of as SignpostList["of"],
    scope: isScope ? scope : "chapter",
    section: section === null ? null : named(section),
    depth: depth >= 1 && depth <= 5 ? depth : 1,
    anchors: (words("dataAnchors") ?? "").split(/\s+/).filter(Boolean).map(named),
    heading: words("dataHeading") ?? "",
    returnWords: words("dataReturn"),
  };
}

/** A look of its own that a link has; null for none. */
export function lookOf({ properties }: Element): OwnLook | null {
  const said = properties["dataLook"];
  if (said === undefined) return null;
  const look = parsed(said);
  try {
    assertOwnLook(look);
    return look;
  } catch {
    return null;
  }
}

/** How an area is framed. */
export function frameOf(said: unknown): Frame {
  const { line, thickness, colour } = (parsed(said) ?? {}) as Partial<Frame>;
  const isFrame =
    ["none", "solid", "dashed", "underlined"].includes(String(line)) &&
    typeof thickness === "number" &&
    /^#[0-9a-f]{6}$/i.test(String(colour));
  return isFrame ? { line: line!, thickness, colour: colour! } : noFrame;
}

/** What a file says that its book counts; null where it does not. */
export function conventionsOf(said: unknown): Conventions | null {
  const conventions = typeof said === "object" ? said : parsed(said);
  try {
    assertConventions(conventions);
    return conventions;
  } catch {
    return null;
  }
}

function parsed(said: unknown): unknown {
  if (typeof said !== "string") return null;
  try {
    return JSON.parse(said);
  } catch {
    return null;
  }
}

/** Takes out what a book made by itself, and makes anchors and areas of what is one and looks like something else. */
export function withoutWhatIsMade(tree: Root): void {
  for (const parent of [tree, ...allElements(tree)]) {
    const children = parent.children as ElementContent[];
    if (!children.some((child) => child.type === "element")) continue;
    const kept: ElementContent[] = [];
    for (const child of children) {
      if (child.type !== "element") kept.push(child);
      else if (child.properties["dataArea"] !== undefined && joinsPicture(child, kept)) continue;
      else if (child.properties["dataMade"] === undefined) {
        if (child.tagName === "span" && child.properties["dataAnchor"] !== undefined) child.tagName = "a";
        kept.push(child);
      }
    }
    parent.children = kept;
  }
}

/** Puts a link that stands behind a picture, as formats without areas have it, onto the picture as the area that it is. */
function joinsPicture(link: Element, before: ElementContent[]): boolean {
  const [shape, ...points] = String(link.properties["dataArea"]).split(" ");
  const at = before.findLastIndex((one) => one.type !== "text" || one.value.trim() !== "");
  const picture = before[at];
  const image = picture?.type === "element" ? firstPicture(picture) : null;
  if (!image || (shape !== "rectangle" && shape !== "ellipse" && shape !== "polygon")) return false;
  const { href, title, dataFrame } = link.properties;
  const area: FoundArea = {
    shape,
    points: points.map((point) => point.split(",").map(Number) as [number, number]),
    unit: "share",
    href: String(href),
    alt: wordsOf(link),
    title: typeof title === "string" ? title : null,
    ...(typeof dataFrame === "string" ? { frame: dataFrame } : {}),
  };
  const known = parsed(image.properties["dataAreas"]);
  image.properties["dataAreas"] = JSON.stringify([...(Array.isArray(known) ? known : []), area]);
  before.length = at + 1;
  return true;
}

function firstPicture(element: Element): Element | null {
  if (element.tagName === "img") return element;
  return element.tagName === "a"
    ? (allElements(element).find(({ tagName }) => tagName === "img") ?? null)
    : null;
}

function wordsOf(element: Element): string {
  return element.children
    .map((child) => (child.type === "text" ? child.value : child.type === "element" ? wordsOf(child) : ""))
    .join("");
}
