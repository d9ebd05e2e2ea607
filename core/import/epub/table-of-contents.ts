import { percentDecoded } from "../../destination/percent-decoded.ts";
import { ImportError } from "../errors.ts";
import { pathFrom } from "../joined-pages.ts";
import { childOf, elements, everyElement, shownText, type XmlElement } from "../xml-tree.ts";
import type { EpubPackage } from "./package-of-epub.ts";
import { readXhtml } from "./read-xhtml.ts";

/** An entry of an e-book's table of contents. */
export interface ContentsEntry {
  path: string;
  /** The id of where it leads on that page; null for the page itself. */
  fragment: string | null;
  label: string;
  /** How deep it lies in others, from 1. */
  depth: number;
}

/**
 * The table of contents of an e-book: the list that its navigation calls so (EPUB 3.3, 5.4.2.2), else the map of its NCX
 * (version 2). Empty where it has none that can be read.
 */
export function tableOfContents({ files, navigation, ncx }: EpubPackage): ContentsEntry[] {
  const list = (path: string | null, read: (root: XmlElement, path: string) => ContentsEntry[]) => {
    const bytes = path === null ? undefined : files[path];
    try {
      return bytes ? read(readXhtml(path!, bytes), path!) : [];
    } catch (error) {
      if (!(error instanceof ImportError)) throw error;
      return [];
    }
  };
  const told = list(navigation, entriesOfNavigation);
  return told.length > 0 ? told : list(ncx, entriesOfNcx);
}

function entriesOfNavigation(root: XmlElement, path: string): ContentsEntry[] {
  const isToc = ({ name, attributes }: XmlElement): boolean =>
    name === "nav" && /\b(toc|doc-toc)\b/.test(`${attributes["epub:type"]} ${attributes["role"]}`);
  const toc = everyElement(root).find(isToc);
  const found: ContentsEntry[] = [];
  const visit = (parent: XmlElement, depth: number): void => {
    for (const child of elements(parent)) {
      if (child.name === "a") note(found, path, child.attributes["href"], shownText(child), depth);
      else visit(child, child.name === "ol" ? depth + 1 : depth);
    }
  };
  if (toc) visit(toc, 0);
  return found;
}

function entriesOfNcx(root: XmlElement, path: string): ContentsEntry[] {
  const found: ContentsEntry[] = [];
  const visit = (parent: XmlElement, depth: number): void => {
    for (const point of elements(parent).filter(({ name }) => name === "navPoint")) {
      const label = childOf(point, "navLabel");
      note(found, path, childOf(point, "content")?.attributes["src"], label ? shownText(label) : "", depth);
      visit(point, depth + 1);
    }
  };
  const map = childOf(root, "navMap");
  if (map) visit(map, 1);
  return found;
}

function note(
  found: ContentsEntry[],
  from: string,
  href: string | undefined,
  label: string,
  depth: number,
): void {
  if (href === undefined || label === "") return;
  const [, fragment] = /#(.+)$/s.exec(href) ?? [];
  found.push({
    path: pathFrom(from, href),
    fragment: fragment === undefined ? null : percentDecoded(fragment),
    label,
    depth: Math.min(6, Math.max(1, depth)),
  });
}
