import postcss, { CssSyntaxError, type Rule } from "postcss";
import type { Element, Root } from "hast";
import { toString } from "hast-util-to-string";
import { FileNames } from "./file-name.ts";
import { allElements } from "./hast-nodes.ts";
import { pathFrom } from "./joined-pages.ts";
import { decodePage } from "./text-encoding.ts";

/** One part of a selector: what an element itself has to be. */
interface Simple {
  /** Whether what it is in is to be right around it. */
  isChild: boolean;
  tagName: string | null;
  id: string | null;
  classes: readonly string[];
}

interface StyleRule {
  /** What the element is, then what it has to be in, from the innermost. */
  parts: readonly Simple[];
  /** How much more it counts than others (CSS Selectors 3, 9), then which of two alike is the later. */
  weight: readonly number[];
  declarations: ReadonlyMap<string, string>;
}

/** What of a style is taken over where it stands at an element (CSS Fonts 4; CSS Text 3; CSS 2.1, 10.8.1 and 8.3). */
const ofWords =
  /^(font-weight|font-style|font-variant(-caps)?|text-decoration(-line)?|vertical-align|text-align|margin-left)$/;
/** Longer selectors than this are of pages that are programs. */
const mostParts = 6;
/** More rules for one class than this no page of words has. */
const mostOfClass = 1_000;

/**
 * What style sheets say of how words are shown, as far as a manuscript has it, by selectors of classes. What a page says
 * by sheets is as if it were said at each element then.
 */
export class StyleSheets {
  private readonly byClass = new Map<string, StyleRule[]>();

  /** @param sheets the texts of sheets, in their order; what cannot be read of one is passed over, as browsers do */
  constructor(sheets: readonly string[]) {
    let order = 0;
    for (const sheet of sheets) {
      for (const node of parsed(sheet)) {
        const declarations = declarationsOf(node);
        if (declarations.size === 0) continue;
        for (const selector of node.selectors) this.take(selector, declarations, order++);
      }
    }
  }

  private take(selector: string, declarations: ReadonlyMap<string, string>, order: number): void {
    const parts = partsOf(selector);
    const [key] = parts?.[0]?.classes ?? [];
    if (!parts || key === undefined) return;
    const count = (of: (part: Simple) => number): number => parts.reduce((sum, part) => sum + of(part), 0);
    const weight = [
      count(({ id }) => (id === null ? 0 : 1)),
      count(({ classes }) => classes.length),
      count(({ tagName }) => (tagName === null ? 0 : 1)),
      order,
    ];
    const known = this.byClass.get(key);
    if (known && known.length < mostOfClass) known.push({ parts, weight, declarations });
    else if (!known) this.byClass.set(key, [{ parts, weight, declarations }]);
  }

  /** Writes what the sheets say of elements into their own style, before what that says already. */
  applyTo(tree: Root | Element): void {
    if (this.byClass.size === 0) return;
    /** What the element is in that is looked at, from the outermost. */
    const around: Element[] = tree.type === "element" ? [tree] : [];
    const visit = (element: Element): void => {
      const meant = classesOf(element)
        .flatMap((name) => this.byClass.get(name) ?? [])
        .filter(({ parts }) => isMeant(parts, element, around));
      if (meant.length > 0) writeInto(element, meant, around);
      around.push(element);
      for (const child of element.children) if (child.type === "element") visit(child);
      around.pop();
    };
    for (const child of tree.children) if (child.type === "element") visit(child);
  }
}

/** Writes what rules say of an element into its own style, where that does not say so itself. */
function writeInto(element: Element, meant: StyleRule[], around: readonly Element[]): void {
  meant.sort((a, b) => firstOther(a.weight, b.weight));
  const all = new Map(meant.flatMap(({ declarations }) => [...declarations]));
  const style = element.properties["style"];
  const own = typeof style === "string" ? style : "";
  for (const declaration of own.split(";")) all.delete(declaration.split(":")[0]!.trim().toLowerCase());
  if (element.tagName !== "li") all.delete("margin-left");
  // Headings are bold without it.
  if ([element, ...around].some(({ tagName }) => /^(h[1-6]|th|dt)$/.test(tagName))) all.delete("font-weight");
  const said = [...all].map(([name, value]) => `${name}:${value}`);
  if (said.length > 0) element.properties["style"] = [...said, own].join(";");
}

/** Of a page in a container of files: what the sheets say that it has inside, or names among the files. */
export function stylesIn(
  files: Readonly<Record<string, Uint8Array>>,
): (path: string, page: Root | Element) => StyleSheets {
  const names = new FileNames(Object.keys(files));
  const made = new Map<string, StyleSheets>();
  const texts = new Map<string, string>();
  return (path, page) => {
    const sheets = sheetsOf(page, (href) => {
      const to = names.meant(pathFrom(path, href));
      if (to === null) return null;
      const text = texts.get(to) ?? decodePage(files[to]!);
      texts.set(to, text);
      return text;
    });
    const key = sheets.join("\0");
    const styles = made.get(key) ?? new StyleSheets(sheets);
    made.set(key, styles);
    return styles;
  };
}

/** What the sheets say that a page has inside. */
export const stylesInside = (page: Root | Element): StyleSheets =>
  new StyleSheets(sheetsOf(page, () => null));

/** The texts of the sheets that a page has inside, and of those that it names, in their order. */
function sheetsOf(page: Root | Element, sheetAt: (href: string) => string | null): string[] {
  return allElements(page).flatMap((element) => {
    const { tagName, properties } = element;
    if (tagName === "style") return [toString(element)];
    const isSheet = tagName === "link" && /\bstylesheet\b/i.test([properties["rel"]].flat().join(" "));
    const sheet = isSheet && typeof properties["href"] === "string" ? sheetAt(properties["href"]) : null;
    return sheet === null ? [] : [sheet];
  });
}

/** The rules of a sheet that hold everywhere. Programs put sheets into comments of HTML for browsers without any. */
function parsed(sheet: string): Rule[] {
  let css = sheet.replace(/<!--|-->/g, "");
  for (;;) {
    try {
      return postcss.parse(css).nodes.filter((node): node is Rule => node.type === "rule");
    } catch (error) {
      if (!(error instanceof CssSyntaxError)) throw error;
      const lines = css.split("\n").slice(0, (error.line ?? 1) - 1);
      const before = lines.join("\n");
      css = before.slice(0, before.lastIndexOf("}") + 1);
    }
  }
}

function declarationsOf(rule: Rule): Map<string, string> {
  const found = new Map<string, string>();
  for (const node of rule.nodes) {
    if (node.type !== "decl") continue;
    const name = node.prop.toLowerCase();
    // How the usual text stands is how a book is set.
    const isUsual = name === "text-align" && !/^(center|right)$/i.test(node.value.trim());
    if (ofWords.test(name) && !isUsual) found.set(name, node.value);
  }
  return found;
}

/** The parts of a selector from the innermost; null for one that asks for more than what elements are and are in. */
function partsOf(selector: string): Simple[] | null {
  const parts = selector
    .trim()
    .replace(/\s*>\s*/g, " >")
    .split(/\s+/);
  if (parts.length > mostParts) return null;
  const read = parts.map((part): Simple | null => {
    const [, child, tagName, rest] =
      /^(>?)([a-z][a-z0-9-]*|\*)?((?:[.#][\w\u0080-\uffff-]+)*)$/i.exec(part) ?? [];
    if (rest === undefined) return null;
    const names = rest.match(/[.#][^.#]+/g) ?? [];
    return {
      isChild: child === ">",
      tagName: tagName === undefined || tagName === "*" ? null : tagName.toLowerCase(),
      id: names.findLast((name) => name.startsWith("#"))?.slice(1) ?? null,
      classes: names.filter((name) => name.startsWith(".")).map((name) => name.slice(1)),
    };
  });
  return read.every((part) => part !== null) ? read.reverse() : null;
}

function isMeant(parts: readonly Simple[], element: Element, around: readonly Element[]): boolean {
  if (!isOne(parts[0]!, element)) return false;
  let at = around.length - 1;
  return parts.slice(1).every((part, i) => {
    while (!parts[i]!.isChild && at >= 0 && !isOne(part, around[at]!)) at--;
    const outer = around[at--];
    return outer !== undefined && isOne(part, outer);
  });
}

function isOne({ tagName, id, classes }: Simple, element: Element): boolean {
  if (tagName !== null && tagName !== element.tagName) return false;
  if (id !== null && id !== element.properties["id"]) return false;
  const own = classesOf(element);
  return classes.every((name) => own.includes(name));
}

function classesOf({ properties: { className } }: Element): string[] {
  return Array.isArray(className) ? className.map(String) : [];
}

function firstOther(a: readonly number[], b: readonly number[]): number {
  const i = a.findIndex((one, at) => one !== b[at]);
  return i === -1 ? 0 : a[i]! - b[i]!;
}
