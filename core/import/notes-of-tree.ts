import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { literalPattern } from "../manuscript/literal-pattern.ts";
import { becomeSign, namesOf } from "./hast-nodes.ts";
import { semanticsOf } from "./semantics.ts";

interface Found {
  node: Element;
  parent: Root | Element;
  /** The term before it, or the cell, where it is a definition or the cell beside: the number of the note stands there. */
  term?: Element;
}

/** A note as a page has it: its sign in the text, what it says, and the link that leads back. */
interface PageNote {
  id: string;
  sign: Element;
  body: Found;
}

const isOneOf = (node: Element, kinds: readonly string[]): boolean =>
  semanticsOf(node).some((said) => kinds.includes(said.replace(/^doc-/, "")));
const isWayBack = (node: Element): boolean => isOneOf(node, ["backlink"]);

/**
 * Makes notes of what a page says is one: by its type (EPUB 3 Structural Semantics), by its role (DPUB-ARIA 1.1), or by
 * its shape, a link with a number or a star for its words to a block that leads back to it (common practice).
 */
export function notesOfTree(tree: Root): void {
  const page = new PageOfNotes(tree);
  const notes = page.notes();
  const bodies = new Map<Element, Found & { id: string }>();
  for (const { body, id } of notes) if (!bodies.has(body.node)) bodies.set(body.node, { ...body, id });
  const ways = new Set(notes.flatMap(({ id }) => page.waysTo(id)));
  const numbers = new Map(notes.map(({ sign, body }) => [body.node, numberIn(sign)]));
  for (const { sign, body } of notes) becomeSign(sign, bodies.get(body.node)!.id);
  const ids = new Set([...bodies.values()].map(({ id }) => id));
  for (const sign of page.furtherSigns(ids)) becomeSign(sign, String(sign.properties["href"]).slice(1));
  for (const [body, { id, parent, term }] of bodies) {
    const children = parent.children as ElementContent[];
    children.splice(children.indexOf(body), 1);
    if (term) children.splice(children.indexOf(term), 1);
    const isHolder = ["li", "div", "aside", "section", "dd", "td"].includes(body.tagName);
    const own = isHolder ? body.children : [body];
    const said = withoutWaysBack([...(term?.children ?? []), ...own], ways);
    // What stands behind a number of ours is the author's.
    const content = within(body).some(isOfNumber) ? said : withoutNumber(said, numbers.get(body)!);
    const { position } = body;
    tree.children.push({
      type: "element",
      tagName: "note-body",
      properties: { dataNote: id, id },
      children: content,
      ...(position ? { position } : {}),
    });
    page.removeIfEmpty(parent);
  }
}

/** The notes of a page, before any is moved. */
class PageOfNotes {
  private readonly all: Found[] = [];
  private readonly parents = new Map<Element, Root | Element>();
  private readonly order = new Map<Element, number>();
  private readonly byId = new Map<string, Element>();
  /** The names by which each link may be led back to. */
  private readonly namesOf = new Map<string, Set<string>>();

  constructor(tree: Root) {
    const collect = (parent: Root | Element): void => {
      for (const node of parent.children) {
        if (node.type !== "element") continue;
        this.all.push({ node, parent });
        this.parents.set(node, parent);
        this.order.set(node, this.order.size);
        for (const name of namesOf(node)) if (!this.byId.has(name)) this.byId.set(name, node);
        collect(node);
      }
    };
    collect(tree);
  }

  notes(): PageNote[] {
    return this.all.flatMap(({ node: sign }): PageNote[] => {
      const { href } = sign.properties;
      if (sign.tagName !== "a" || typeof href !== "string" || !href.startsWith("#")) return [];
      const id = href.slice(1);
      const body = this.bodyOf(id, sign);
      return body === null ? [] : [{ id, sign, body }];
    });
  }

  /** Links with a number or a star for their words to what is a note already: its sign once more. */
  furtherSigns(notes: ReadonlySet<string>): Element[] {
    return this.all.flatMap(({ node }) => {
      const { href } = node.properties;
      const leads = node.tagName === "a" && typeof href === "string" && notes.has(href.slice(1));
      return leads && looksLikeSign(node) && !isWayBack(node) ? [node] : [];
    });
  }

  /** The links back from a note to its signs. */
  waysTo(note: string): string[] {
    return [...(this.namesOf.get(note) ?? [])].map((name) => `#${name}`);
  }

  /** A list that held notes alone goes with the last of them, and so does what held that list alone. */
  removeIfEmpty(parent: Root | Element): void {
    if (parent.type === "root" || !/^(ol|ul|dl|div|section|aside|tr|tbody|table)$/.test(parent.tagName))
      return;
    const isLeft = parent.children.some(
      (child) =>
        (child.type === "element" && child.tagName !== "hr" && child.tagName !== "br") ||
        (child.type === "text" && child.value.trim() !== ""),
    );
    const above = this.parents.get(parent);
    if (isLeft || !above) return;
    const children = above.children as ElementContent[];
    if (children.includes(parent)) children.splice(children.indexOf(parent), 1);
    this.removeIfEmpty(above);
  }

  private bodyOf(id: string, sign: Element): Found | null {
    const target = this.byId.get(id);
    if (!target) return null;
    if (isOneOf(target, ["footnote", "endnote", "rearnote"]) && isOneOf(sign, ["noteref"]))
      return this.named(id, sign, target);
    const names = this.namesAround(sign);
    const block = looksLikeSign(sign) && names.length > 0 ? this.blockOf(target) : null;
    if (!block) return null;
    const term = this.termOf(block);
    const inside = [block, ...within(block), ...(term ? within(term) : [])];
    const leadsBack = inside.some(({ properties: { href } }) => names.includes(String(href)));
    // Of two that lead to each other the first is the sign.
    if (!leadsBack || inside.includes(sign) || this.order.get(sign)! > this.order.get(block)!) return null;
    // A number that stands alone is no note, whatever stands after it.
    if (!saysSomething(block, names)) return null;
    return { ...this.named(id, sign, block), ...(term ? { term } : {}) };
  }

  private named(id: string, sign: Element, body: Element): Found {
    const names = this.namesAround(sign).map((name) => name.slice(1));
    this.namesOf.set(id, new Set([...(this.namesOf.get(id) ?? []), ...names]));
    return { node: body, parent: this.parents.get(body)! };
  }

  /** How a way back may call a sign: by its own ids, or those of what holds it alone. */
  private namesAround(sign: Element): string[] {
    const names = [sign, ...within(sign)].flatMap(namesOf);
    for (let node = this.parents.get(sign); node?.type === "element"; node = this.parents.get(node)) {
      if (!/^(sup|span|small|b|i|em|strong)$/.test(node.tagName)) break;
      names.push(...namesOf(node));
    }
    return names.map((name) => `#${name}`);
  }

  /** The block that a target is, or whose words it begins; null where it is something larger than a note. */
  private blockOf(target: Element): Element | null {
    let node: Element | Root | undefined = target;
    while (node?.type === "element" && inline.has(node.tagName)) node = this.parents.get(node);
    if (node?.type !== "element" || !/^(p|li|div|aside|dd|td|dt)$/.test(node.tagName)) return null;
    const above = this.parents.get(node);
    // A paragraph alone in an item is that item.
    const isAlone = above?.type === "element" && above.tagName === "li" && onlyChild(above) === node;
    const block = isAlone
      ? above
      : node.tagName === "dt" || isNumberCell(node)
        ? this.definitionOf(node)
        : node;
    return block && isNoteSized(block) ? block : null;
  }

  /** The definition behind a term, or the cell beside one. */
  private definitionOf(term: Element): Element | null {
    const definition = this.beside(term, 1);
    return definition?.tagName === (term.tagName === "dt" ? "dd" : "td") ? definition : null;
  }

  /** The term before a definition, or the number's cell before one. */
  private termOf(definition: Element): Element | undefined {
    if (!/^(dd|td)$/.test(definition.tagName)) return undefined;
    const term = this.beside(definition, -1);
    return term && (term.tagName === "dt" || isNumberCell(term)) ? term : undefined;
  }

  private beside(element: Element, step: 1 | -1): Element | undefined {
    const all = (this.parents.get(element)?.children ?? []).filter(
      (child): child is Element => child.type === "element",
    );
    return all[all.indexOf(element) + step];
  }
}

/** What stands in words and is no block of its own. */
const inline = new Set(["a", "sup", "span", "b", "i", "em", "strong", "small", "cite"]);
const mostLetters = 6_000;

/** Whether there is anything in a block but ways back. */
function saysSomething(block: Element, names: readonly string[]): boolean {
  const content = withoutWaysBack(block.children, new Set(names));
  const isShown = (node: ElementContent): boolean =>
    node.type === "text"
      ? node.value.trim() !== ""
      : node.type === "element" && (node.tagName === "img" || node.children.some(isShown));
  return content.some(isShown);
}

/** Whether a cell of a table holds the number of a note alone. */
function isNumberCell(cell: Element): boolean {
  return cell.tagName === "td" && looksLikeSign(cell);
}

/** Whether the words of a link are a number, a letter or a star, as those of a note's sign are. */
function looksLikeSign(link: Element): boolean {
  return /^[[(]?(\d{1,4}|[a-z]|[ivxlc]{1,6}|[*†‡§¶#]{1,4})[\])]?$/iu.test(toString(link).trim());
}

/** Whether a block can be a note: none has headings, and none is as long as a page. */
function isNoteSized(block: Element): boolean {
  return (
    !within(block).some(({ tagName }) => /^(h[1-6]|section|article|main|body)$/.test(tagName)) &&
    toString(block).length < mostLetters
  );
}

function onlyChild(parent: Element): ElementContent | null {
  const shown = parent.children.filter((child) => child.type !== "text" || child.value.trim() !== "");
  return shown.length === 1 ? shown[0]! : null;
}

function within(parent: Element): Element[] {
  return parent.children.flatMap((child) => (child.type === "element" ? [child, ...within(child)] : []));
}

/** Whether something holds a note's number, as our exports have it. */
function isOfNumber(node: Element): boolean {
  return [node.properties["className"]].flat().includes("note-number");
}

/** What a note says, without the number before it and the ways back, which every export makes anew. */
function withoutWaysBack(children: readonly ElementContent[], ways: ReadonlySet<string>): ElementContent[] {
  return children.flatMap((child): ElementContent[] => {
    if (child.type !== "element") return [child];
    const leadsBack = child.tagName === "a" && ways.has(String(child.properties["href"]));
    if (leadsBack || isWayBack(child) || isOfNumber(child)) return [];
    const inside = withoutWaysBack(child.children, ways);
    // What held ways back alone, with brackets and commas around them, holds nothing now.
    const left = { ...child, children: inside };
    const isEmptied = toString(left) !== toString(child) && !/[\p{L}\p{N}\p{S}]/u.test(toString(left));
    return isEmptied && !holdsPicture(left) ? [] : [left];
  });
}

function holdsPicture(element: Element): boolean {
  return within(element).some(({ tagName }) => tagName === "img");
}

/** What a note says, without its number where that stands before it by itself. */
function withoutNumber(children: readonly ElementContent[], number: string): ElementContent[] {
  const first = children.findIndex((child) => child.type !== "text" || child.value.trim() !== "");
  const node = children[first];
  if (node?.type === "text")
    return children.with(first, { ...node, value: node.value.replace(startOf(number), "") });
  if (node?.type !== "element") return [...children];
  const rest = children.slice(first + 1);
  if (/^(span|sup|small)$/.test(node.tagName) && numberIn(node) === number) return rest;
  return node.tagName === "p"
    ? [{ ...node, children: withoutNumber(node.children, number) }, ...rest]
    : [...children];
}

/** A number that is written before a note, with a point or bracket behind it, without which it may be a word of the note. */
function startOf(number: string): RegExp {
  const own = literalPattern(number);
  return new RegExp(String.raw`^\s*(?:\[${own}\]|\(${own}\)|${own}[.):])\s+`);
}

/** The number, letter or star that something shows, without brackets and points. */
function numberIn(element: Element): string {
  return toString(element).replace(/[\s[\]().]/g, "");
}
