import type { Element, ElementContent, Nodes, Root } from "hast";
import { mimetypeIn, namesIn } from "../containers.ts";
import { areasOfMaps } from "../areas-of-maps.ts";
import { ImportError } from "../errors.ts";
import { decorativeByEmptyAlternative } from "../empty-alternatives.ts";
import { element } from "../hast-nodes.ts";
import { withoutOthersNames } from "../hast-to-manuscript/carried.ts";
import { readHtml } from "../html/html.ts";
import { breaksAsShown } from "../html/line-breaks.ts";
import { anchorsOfTop } from "../html/names-of-top.ts";
import { picturesInside } from "../html/pictures-inside.ts";
import { JoinedPages } from "../joined-pages.ts";
import type { LeftOut } from "../left-out.ts";
import type { ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { notesOfTree } from "../notes-of-tree.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { decodePage } from "../text-encoding.ts";
import { childOf } from "../xml-tree.ts";
import { folderOfEpub } from "./folder-of-epub.ts";
import { hastOfXml } from "./hast-of-xml.ts";
import { linksOfEpub } from "./second-reading.ts";
import { PagesOfPrint } from "./page-list.ts";
import { packageOf, type EpubPackage } from "./package-of-epub.ts";
import { stylesIn } from "../style-sheets.ts";
import { readXhtml } from "./read-xhtml.ts";
import { tableOfContents } from "./table-of-contents.ts";
import { titlesByContents } from "./titles-by-contents.ts";

/** E-books: EPUB 2 and 3. */
export const epub: ManuscriptReader = {
  accepts: ({ bytes }) =>
    mimetypeIn(bytes) === "application/epub+zip" || folderOfEpub(namesIn(bytes)) !== null,
  read: ({ bytes }) => new ReadEpub(packageOf(bytes)).read(),
  linksOf: ({ bytes }) => linksOfEpub(bytes),
};

/** Makes one tree of the pages of an e-book, in which links from page to page are links to places. */
class ReadEpub {
  private readonly stylesOf: ReturnType<typeof stylesIn>;

  constructor(private readonly publication: EpubPackage) {
    this.stylesOf = stylesIn(publication.files);
  }

  read(): ReadManuscript {
    const { files, pages, about } = this.publication;
    const joined = new JoinedPages(files, pages);
    const isOurs = Boolean(about.conventions);
    const print = new PagesOfPrint(this.publication);
    const bodies = new Map(pages.map((path, i) => [path, this.body(path, i + 1, isOurs)]));
    if (!isOurs) {
      titlesByContents(bodies, tableOfContents(this.publication));
      // Those of an export of ours are counted anew.
      for (const [path, body] of bodies) print.intoAnchors(body, path);
    }
    const children = [...bodies].map(([path, body]) => joined.page(path, body));
    const tree: Root = { type: "root", children };
    const inside = picturesInside(tree);
    notesOfTree(tree);
    raiseHeadings(tree);
    return {
      tree,
      about,
      pictures: [...joined.pictures.values(), ...inside],
      companions: [...joined.companions.values()],
      leftOut: [...print.told(), ...this.unread()],
      whereOf: ({ position }: Nodes) => (position ? (pages[position.start.line - 1] ?? null) : null),
    };
  }

  /** What readers of the e-book come to that is no text, or is not there. */
  private unread(): LeftOut[] {
    return this.publication.unread.map((path) => ({
      where: path,
      sort: "Pages of the e-book that were not brought in",
      what: `The page ${path}`,
      why: this.publication.files[path]
        ? "It is neither a page of text nor a drawing."
        : "The e-book names it, and does not have it.",
    }));
  }

  /** As XML, which it ought to be; else as browsers read it. */
  private body(path: string, number: number, isOurs: boolean): Element {
    const bytes = this.publication.files[path]!;
    try {
      const page = readXhtml(path, bytes);
      if (page.name === "svg") return element("body", {}, [hastOfXml(page, number)], number);
      const body = childOf(page, "body");
      if (body) {
        const read = hastOfXml(body, number);
        read.children.unshift(...anchorsOfTop([page, body].map(({ attributes }) => attributes["id"])));
        withoutOthersNames(read, isOurs);
        areasOfMaps(read);
        if (!isOurs) {
          const head = childOf(page, "head");
          if (head) this.stylesOf(path, hastOfXml(head, number)).applyTo(read);
          decorativeByEmptyAlternative(read);
          breaksAsShown(read);
        }
        return read;
      }
    } catch (error) {
      if (!(error instanceof ImportError)) throw error;
    }
    const { children } = readHtml(decodePage(bytes), isOurs, (page) => this.stylesOf(path, page));
    return element("body", {}, children as ElementContent[], number);
  }
}
