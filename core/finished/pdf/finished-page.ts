import type { LinkChange } from "../../manuscript/edit-links.ts";
import type { Place } from "../../manuscript/outline.ts";
import type { PublicationLink } from "../../publication/linked-part.ts";
import { LinkedInPlace } from "../linked-in-place.ts";
import { boxAround, samePdfLink, topOfPage, type PdfLink, type PdfPage } from "./pdf-page.ts";

/** A page of a finished PDF as a part of a publication. */
export class FinishedPage extends LinkedInPlace<PdfLink, PdfPage> {
  get title(): string {
    return titleOfPage(this.content);
  }

  links(): readonly PublicationLink[] {
    return this.inOrder().map(({ id, words, areas, destination, description }) => ({
      id,
      text: words,
      parts: [{ text: words }],
      destination,
      description,
      asText: false,
      look: null,
      on: words === "" ? "hotspot" : "words",
      under: this.headingAbove(boxAround(areas)[3]),
    }));
  }

  places(): readonly Place[] {
    const none = { context: "", ordinal: null, note: null, list: null };
    const { number, places } = this.content;
    return [
      { ...none, id: topOfPage(number), kind: "title", level: 0, text: this.title, position: 0 },
      ...places.map(({ id, of, level, name }, i): Place => {
        const text = of === "outline" ? name : `${this.title}${name && `: ${name}`}`;
        const kind = of === "outline" ? "heading" : "anchor";
        return { ...none, id, kind, level: level && Math.min(level, 4), text, position: i + 1 };
      }),
    ];
  }

  protected isSame(a: PdfLink, b: PdfLink): boolean {
    return samePdfLink(a, b);
  }

  protected changedLink(link: PdfLink, change: LinkChange): PdfLink {
    // The words are the page’s own.
    const { destination = link.destination, description = link.description } = change;
    const isInStructure = link.isInStructure || change.inStructure === true;
    return { ...link, destination, description, isInStructure };
  }

  protected with(links: PdfLink[]): FinishedPage {
    return new FinishedPage({ ...this.content, links });
  }

  /** From the top of the page to its foot, and along each line. */
  private inOrder(): PdfLink[] {
    const boxed = this.content.links.map((link) => ({ link, box: boxAround(link.areas.slice(0, 1)) }));
    const isOneLine = (a: (typeof boxed)[0], b: (typeof boxed)[0]): boolean =>
      Math.abs(a.box[3] - b.box[3]) < (a.box[3] - a.box[1]) / 2;
    return boxed
      .sort((a, b) => (isOneLine(a, b) ? a.box[0] - b.box[0] : b.box[3] - a.box[3]))
      .map(({ link }) => link);
  }

  private headingAbove(y: number): string {
    const above = this.content.places.filter((place) => place.of === "outline" && (place.y ?? Infinity) >= y);
    return above.sort((a, b) => (a.y ?? Infinity) - (b.y ?? Infinity))[0]?.name ?? "";
  }
}

/** What a page is called: by the number that stands on it, and where that is another one, by its place in the file. */
export function titleOfPage({ number, label }: Pick<PdfPage, "number" | "label">): string {
  return label === String(number) ? `Page ${number}` : `Page ${label} (no. ${number})`;
}
