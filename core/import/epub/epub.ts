import { strFromU8 } from "fflate";
import type { Element, ElementContent, Nodes, Root } from "hast";
import { mimetypeIn, namesIn } from "../containers.ts";
import { ImportError } from "../errors.ts";
import { decorativeByEmptyAlternative } from "../empty-alternatives.ts";
import { element } from "../hast-nodes.ts";
import { withoutOthersNames } from "../hast-to-manuscript/carried.ts";
import { readHtml } from "../html/html.ts";
import { JoinedPages } from "../joined-pages.ts";
import type { ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { notesOfTree } from "../notes-of-tree.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { childOf, readXml } from "../xml-tree.ts";
import { folderOfEpub } from "./folder-of-epub.ts";
import { hastOfXml } from "./hast-of-xml.ts";
import { withoutNamedLetters } from "./named-letters.ts";
import { linksOfEpub } from "./second-reading.ts";
import { PagesOfPrint } from "./page-list.ts";
import { packageOf, type EpubPackage } from "./package-of-epub.ts";

/** E-books: EPUB 2 and 3. */
export const epub: ManuscriptReader = {
  accepts: ({ bytes }) =>
    mimetypeIn(bytes) === "application/epub+zip" || folderOfEpub(namesIn(bytes)) !== null,
  read: ({ bytes }) => new ReadEpub(packageOf(bytes)).read(),
  linksOf: ({ bytes }) => linksOfEpub(bytes),
};

/** Makes one tree of the pages of an e-book, in which links from page to page are links to places. */
class ReadEpub {
  constructor(private readonly publication: EpubPackage) {}

  read(): ReadManuscript {
    const { files, pages, about } = this.publication;
    const joined = new JoinedPages(files, pages);
    const isOurs = Boolean(about.conventions);
    const print = new PagesOfPrint(this.publication);
    const children = pages.map((path, i) => {
      const body = this.body(path, i + 1, isOurs);
      // Those of an export of ours are counted anew.
      if (!isOurs) print.intoAnchors(body, path);
      return joined.page(path, body);
    });
    const tree: Root = { type: "root", children };
    notesOfTree(tree);
    raiseHeadings(tree);
    return {
      tree,
      about,
      pictures: [...joined.pictures.values()],
      companions: [...joined.companions.values()],
      leftOut: print.told(),
      whereOf: ({ position }: Nodes) => (position ? (pages[position.start.line - 1] ?? null) : null),
    };
  }

  /** As XML, which it ought to be; else as browsers read it. */
  private body(path: string, number: number, isOurs: boolean): Element {
    const text = strFromU8(this.publication.files[path]!).replace(/^\ufeff/, "");
    try {
      const html = readXml(path, withoutNamedLetters(text.replace(/<!DOCTYPE[^>]*>/i, "")));
      const body = childOf(html, "body");
      if (body) {
        const read = hastOfXml(body, number);
        withoutOthersNames(read, isOurs);
        if (!isOurs) decorativeByEmptyAlternative(read);
        return read;
      }
    } catch (error) {
      if (!(error instanceof ImportError)) throw error;
    }
    return element("body", {}, readHtml(text, isOurs).children as ElementContent[], number);
  }
}
