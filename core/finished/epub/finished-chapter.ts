import type { LinkChange } from "../../manuscript/edit-links.ts";
import type { Place } from "../../manuscript/outline.ts";
import type { PublicationLink } from "../../publication/linked-part.ts";
import { LinkedInPlace } from "../linked-in-place.ts";
import { sameEpubLink, topOfEpubPage, type EpubLink, type EpubPage } from "./epub-page.ts";

/** A page of a finished e-book as a part of a publication. */
export class FinishedChapter extends LinkedInPlace<EpubLink, EpubPage> {
  get title(): string {
    return this.content.title;
  }

  links(): readonly PublicationLink[] {
    const headings = this.content.places.filter(({ of }) => of === "heading");
    return inTextOrder(this.content.links).map(({ id, words, on, destination, description }) => ({
      id,
      text: words,
      parts: [{ text: words }],
      destination,
      description,
      asText: false,
      look: null,
      on: on.kind === "area" ? "hotspot" : on.kind,
      under: headings.findLast(({ element }) => element <= on.element)?.name ?? "",
    }));
  }

  places(): readonly Place[] {
    const none = { context: "", ordinal: null, note: null, list: null };
    const { number, places, isInOrder } = this.content;
    if (!isInOrder) return [];
    return [
      { ...none, id: topOfEpubPage(number), kind: "title", level: 0, text: this.title, position: 0 },
      ...places.map(({ id, of, level, name }, i): Place => {
        const kind = of === "heading" ? "heading" : "anchor";
        return { ...none, id, kind, level: level && Math.min(level, 4), text: name, position: i + 1 };
      }),
    ];
  }

  protected isSame(a: EpubLink, b: EpubLink): boolean {
    return sameEpubLink(a, b);
  }

  protected changedLink(link: EpubLink, change: LinkChange): EpubLink {
    const { destination = link.destination, description = link.description } = change;
    const words = link.hasOwnWords && change.text ? change.text : link.words;
    return { ...link, destination, description, words };
  }

  protected with(links: EpubLink[]): FinishedChapter {
    return new FinishedChapter({ ...this.content, links });
  }
}

/** Links in the order in which they are read. */
export function inTextOrder(links: readonly EpubLink[]): EpubLink[] {
  return [...links].sort((a, b) => a.on.from - b.on.from || a.on.element - b.on.element);
}
