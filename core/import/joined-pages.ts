import type { Element, ElementContent } from "hast";
import { topOfBook } from "../manuscript/book-index.ts";
import { percentDecoded } from "../destination/percent-decoded.ts";
import { FileNames } from "./file-name.ts";
import { element } from "./hast-nodes.ts";
import type { FoundArea } from "./areas.ts";
import type { EnclosedFile } from "./manuscript-reader.ts";
import { isPicture } from "./pictures.ts";
import { pictureOfSvg } from "./svg-pictures.ts";

/** Makes one text of the pages in a container: links from page to page lead to places, files that are beside them come along. */
export class JoinedPages {
  readonly pictures = new Map<string, EnclosedFile>();
  readonly companions = new Map<string, EnclosedFile>();
  private readonly numbers: ReadonlyMap<string, number>;
  private readonly names: FileNames;

  /** @param pages the paths of the pages, in their order */
  constructor(
    private readonly files: Readonly<Record<string, Uint8Array>>,
    pages: readonly string[],
  ) {
    this.numbers = new Map(pages.map((path, i) => [path, i + 1]));
    this.names = new FileNames(Object.keys(files));
  }

  /** A page as a part of the whole: links to it lead to where it begins. */
  page(path: string, body: Element): Element {
    const number = this.numbers.get(path)!;
    this.rewrite(body, path);
    return element("section", { id: placeOf(number, ""), dataPage: true }, body.children, number);
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
    for (const key of ["dataSection", "dataAnchors"] as const)
      if (typeof properties[key] === "string")
        properties[key] = properties[key]
          .split(" ")
          .map((href) => this.href(href, path))
          .join(" ");
    if (typeof properties["dataAreas"] === "string") {
      const areas = JSON.parse(properties["dataAreas"]) as FoundArea[];
      const led = areas.map((area) => ({ ...area, href: this.href(area.href, path) }));
      properties["dataAreas"] = JSON.stringify(led);
    }
    if (typeof properties["href"] === "string") {
      const href = properties["href"];
      properties["href"] = parent.tagName === "image" ? this.picture(href, path) : this.href(href, path);
      // A file may have another name in its book than paths allow.
      const companion = this.companions.get(properties["href"].replace(/#.*$/s, ""));
      if (companion && typeof properties["dataFile"] === "string" && properties["dataFile"] !== "")
        companion.name = properties["dataFile"];
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
    const to = href.startsWith("#") ? path : this.meant(path, href);
    const number = this.numbers.get(to);
    if (number !== undefined) return `#${placeOf(number, percentDecoded(fragment))}`;
    const bytes = this.files[to];
    if (!bytes) return href;
    this.companions.set(to, { reference: to, name: to.split("/").at(-1)!, bytes });
    return fragment === "" ? to : `${to}#${fragment}`;
  }

  private meant(path: string, href: string): string {
    const to = pathFrom(path, href);
    return this.names.meant(to) ?? to;
  }

  private picture(source: string, path: string): string {
    const to = this.meant(path, source);
    const bytes = this.files[to];
    if (!bytes) return source;
    if (isPicture(bytes)) this.pictures.set(to, { reference: to, name: to.split("/").at(-1)!, bytes });
    return to;
  }
}
/** The name of a place in all pages together; the top of a book of ours is one in all of them. */
function placeOf(page: number, id: string): string {
  if (id === topOfBook) return id;
  return `page-${page}${id && `-${id}`}`;
}

/** A path in the container from an address relative to a file of it; addresses outside are none. */
export function pathFrom(file: string, href: string): string {
  const address = href.replace(/[?#].*$/s, "");
  if (!URL.canParse(address, `epub:///${file}`)) return "";
  const { pathname } = new URL(address, `epub:///${file}`);
  // Slashes that follow each other part two folders as one does, on all disks from which packed files come.
  return percentDecoded(pathname.replace(/^\/+/, "").replace(/\/{2,}/g, "/"));
}
