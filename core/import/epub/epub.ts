import { strFromU8 } from "fflate";
import type { Element, ElementContent, Nodes, Root } from "hast";
import { mimetypeIn } from "../containers.ts";
import { ImportError } from "../errors.ts";
import { decoded, element } from "../hast-nodes.ts";
import { readHtml } from "../html/html.ts";
import type { EnclosedFile, ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { isPicture } from "../pictures.ts";
import { pictureOfSvg } from "../svg-pictures.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { childOf, readXml } from "../xml-tree.ts";
import { hastOfXml } from "./hast-of-xml.ts";
import { linksOfEpub } from "./second-reading.ts";
import { packageOf, pathFrom, type EpubPackage } from "./package-of-epub.ts";

/** E-books: EPUB 2 and 3. */
export const epub: ManuscriptReader = {
  accepts: ({ bytes }) => mimetypeIn(bytes) === "application/epub+zip",
  read: ({ bytes }) => new ReadEpub(packageOf(bytes)).read(),
  linksOf: ({ bytes }) => linksOfEpub(bytes),
};

/** Makes one tree of the pages of an e-book, in which links from page to page are links to places. */
class ReadEpub {
  private readonly pictures = new Map<string, EnclosedFile>();
  private readonly companions = new Map<string, EnclosedFile>();
  private readonly numbers: ReadonlyMap<string, number>;

  constructor(private readonly publication: EpubPackage) {
    this.numbers = new Map(publication.pages.map((path, i) => [path, i + 1]));
  }

  read(): ReadManuscript {
    const children = this.publication.pages.flatMap((path) => this.page(path));
    const tree: Root = { type: "root", children };
    asNotes(tree);
    raiseHeadings(tree);
    const { pages } = this.publication;
    return {
      tree,
      pictures: [...this.pictures.values()],
      companions: [...this.companions.values()],
      leftOut: [],
      whereOf: ({ position }: Nodes) => (position ? (pages[position.start.line - 1] ?? null) : null),
    };
  }

  private page(path: string): ElementContent[] {
    const number = this.numbers.get(path)!;
    const body = this.body(path, number);
    this.rewrite(body, path);
    // Links to a page lead to where it begins.
    return [element("section", { id: placeOf(number, "") }, body.children, number)];
  }

  /** As XML, which it ought to be; else as browsers read it. */
  private body(path: string, number: number): Element {
    const text = strFromU8(this.publication.files[path]!).replace(/^\ufeff/, "");
    try {
      const html = readXml(path, text.replace(/<!DOCTYPE[^>]*>/i, "").replace(/&nbsp;/g, "\u00a0"));
      const body = childOf(html, "body");
      if (body) return hastOfXml(body, number);
    } catch (error) {
      if (!(error instanceof ImportError)) throw error;
    }
    return element("body", {}, readHtml(text).children as ElementContent[], number);
  }

  private rewrite(parent: Element, path: string): void {
    parent.children = parent.children.flatMap((child): ElementContent[] => {
      if (child.type !== "element") return [child];
      this.rewrite(child, path);
      return child.tagName === "svg" ? this.drawing(child) : [child];
    });
    const { properties } = parent;
    const number = this.numbers.get(path)!;
    for (const key of ["id", "name"] as const)
      if (
        typeof properties[key] === "string" &&
        properties[key] !== "" &&
        (key === "id" || parent.tagName === "a")
      )
        properties[key] = placeOf(number, properties[key]);
    if (typeof properties["href"] === "string") {
      const href = properties["href"];
      properties["href"] = parent.tagName === "image" ? this.picture(href, path) : this.href(href, path);
    }
    if (parent.tagName === "img" && typeof properties["src"] === "string")
      properties["src"] = this.picture(properties["src"], path);
  }

  private drawing(svg: Element): ElementContent[] {
    const made = pictureOfSvg(svg);
    return made.length > 0 ? made : [svg];
  }

  private href(href: string, path: string): string {
    if (/^[a-z][a-z0-9+.-]*:/i.test(href)) return href;
    const [, fragment = ""] = /#(.*)$/s.exec(href) ?? [];
    const to = href.startsWith("#") ? path : pathFrom(path, href);
    const number = this.numbers.get(to);
    if (number !== undefined) return `#${placeOf(number, decoded(fragment))}`;
    const bytes = this.publication.files[to];
    if (!bytes) return href;
    this.companions.set(to, { reference: to, name: to.split("/").at(-1)!, bytes });
    return to;
  }

  private picture(source: string, path: string): string {
    const to = pathFrom(path, source);
    const bytes = this.publication.files[to];
    if (!bytes) return source;
    if (isPicture(bytes)) this.pictures.set(to, { reference: to, name: to.split("/").at(-1)!, bytes });
    return to;
  }
}

/** The name of a place in all pages together. */
function placeOf(page: number, id: string): string {
  return `page-${page}${id && `-${id}`}`;
}

/** Notes, by their type (EPUB 3 Structural Semantics) or their role (DPUB-ARIA 1.1), as notes of the manuscript. */
function asNotes(tree: Root): void {
  const kindOf = ({ properties }: Element): string =>
    `${String(properties["type"] ?? "")} ${String(properties["role"] ?? "")}`;
  const all: { node: Element; parent: Root | Element }[] = [];
  const collect = (parent: Root | Element): void => {
    for (const node of parent.children) {
      if (node.type !== "element") continue;
      all.push({ node, parent });
      collect(node);
    }
  };
  collect(tree);
  const bodies = new Map<string, Element>();
  for (const { node } of all)
    if (
      /\b(footnote|endnote|rearnote|doc-footnote|doc-endnote)\b/.test(kindOf(node)) &&
      typeof node.properties["id"] === "string"
    )
      bodies.set(node.properties["id"], node);
  const called = new Set<string>();
  for (const { node } of all) {
    const { href } = node.properties;
    if (node.tagName !== "a" || typeof href !== "string" || !/\bnoteref\b|doc-noteref/.test(kindOf(node)))
      continue;
    const id = href.slice(1);
    if (!bodies.has(id)) continue;
    called.add(id);
    Object.assign(node, { tagName: "note-reference", properties: { dataNote: id }, children: [] });
  }
  for (const { node, parent } of all) {
    const id = node.properties["id"];
    if (typeof id !== "string" || bodies.get(id) !== node || !called.has(id)) continue;
    (parent.children as ElementContent[]).splice((parent.children as ElementContent[]).indexOf(node), 1);
    tree.children.push({
      ...node,
      tagName: "note-body",
      properties: { dataNote: id },
      children: withoutWaysBack(node.children),
    });
  }
  function withoutWaysBack(children: ElementContent[]): ElementContent[] {
    return children.flatMap((child): ElementContent[] => {
      if (child.type !== "element") return [child];
      if (/backlink|doc-backlink/.test(kindOf(child))) return [];
      return [{ ...child, children: withoutWaysBack(child.children) }];
    });
  }
}
