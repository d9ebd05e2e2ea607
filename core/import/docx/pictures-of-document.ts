import type { EnclosedFile } from "../manuscript-reader.ts";
import { isPicture } from "../pictures.ts";
import type { DocumentParts, Relationship } from "./document-parts.ts";
import { elements, type XmlElement } from "../xml-tree.ts";

/** A picture as it stands in the text. */
interface ReadPicture {
  /** The path of its part, or an address outside. */
  source: string;
  alt: string;
  /** Where a press on it leads. */
  link: string | null;
  title: string | null;
}

type Relationships = ReadonlyMap<string, Relationship>;

/** The pictures, links and text boxes in the drawings of a document (DrawingML, and VML of older programs). */
export class PicturesOfDocument {
  readonly enclosed = new Map<string, EnclosedFile>();

  constructor(private readonly parts: DocumentParts) {}

  canRead(drawing: XmlElement): boolean {
    return within(drawing, ["blip", "imagedata", "txbxContent"]).length > 0;
  }

  read(drawing: XmlElement, relationships: Relationships): ReadPicture[] {
    const link = this.linkOn(drawing, relationships);
    const [about] = within(drawing, ["docPr", "shape", "cNvPr"]).filter(
      ({ attributes }) => attributes["descr"] || attributes["title"] || attributes["alt"],
    );
    const { descr, title, alt } = about?.attributes ?? {};
    return within(drawing, ["blip", "imagedata"]).flatMap(({ attributes }): ReadPicture[] => {
      const id = attributes["r:embed"] ?? attributes["r:id"] ?? attributes["r:link"];
      const to = id === undefined ? undefined : relationships.get(id);
      if (!to) return [];
      if (!to.isOutside) this.enclose(to.target);
      return [
        {
          source: to.target,
          alt: descr ?? title ?? alt ?? "",
          link: link?.href ?? null,
          title: link?.title ?? null,
        },
      ];
    });
  }

  /** The links on shapes that show no picture. */
  linksOnShapes(drawing: XmlElement, relationships: Relationships): { href: string }[] {
    if (within(drawing, ["blip", "imagedata"]).length > 0) return [];
    const link = this.linkOn(drawing, relationships);
    return link ? [link] : [];
  }

  boxesIn(drawing: XmlElement): XmlElement[] {
    return within(drawing, ["txbxContent"]);
  }

  private linkOn(
    drawing: XmlElement,
    relationships: Relationships,
  ): { href: string; title: string | null } | null {
    for (const { attributes } of within(drawing, ["hlinkClick"])) {
      const to = relationships.get(attributes["r:id"] ?? "");
      if (to)
        return { href: to.isOutside ? to.target : `#${to.target}`, title: attributes["tooltip"] ?? null };
    }
    const [shape] = within(drawing, ["shape", "rect"]).filter(({ attributes }) => attributes["href"]);
    return shape ? { href: shape.attributes["href"]!, title: shape.attributes["title"] ?? null } : null;
  }

  private enclose(path: string): void {
    const bytes = this.parts.bytes(path);
    // What is no picture that is shown stays out, and is told as one that was not brought along.
    if (!bytes || this.enclosed.has(path) || !isPicture(bytes)) return;
    this.enclosed.set(path, { reference: path, name: path.split("/").at(-1)!, bytes });
  }
}

/** The elements of some names within one; none within another of them. */
function within(parent: XmlElement, names: readonly string[]): XmlElement[] {
  return elements(parent).flatMap((child) => (names.includes(child.name) ? [child] : within(child, names)));
}
