import { sameDestination } from "../../destination/destination.ts";
import type { LinkEffect } from "../../manuscript/change-links.ts";
import type { Place } from "../../manuscript/outline.ts";
import type { LinkDifference, LinkState } from "../../manuscript/versions.ts";
import type { LinkedPart, PublicationLink } from "../../publication/linked-part.ts";
import { boxAround, samePdfLink, topOfPage, type PdfLink, type PdfPage } from "./pdf-page.ts";

/** A page of a finished PDF as a part of a publication. */
export class FinishedPage implements LinkedPart<PdfPage> {
  constructor(readonly content: PdfPage) {}

  get title(): string {
    return titleOfPage(this.content);
  }

  /** A page’s words are the file’s and are not counted. */
  readonly words = 0;

  toJson(): unknown {
    return this.content;
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

  changed(effectOn: (link: PublicationLink) => LinkEffect): { part: FinishedPage; count: number } {
    const effects = new Map(this.links().map((link) => [link.id, effectOn(link)]));
    let count = 0;
    const links = this.content.links.flatMap((link): PdfLink[] => {
      const effect = effects.get(link.id) ?? null;
      if (effect === null) return [link];
      if (effect === "remove") {
        count++;
        return [];
      }
      // The words are the page’s own.
      const { destination = link.destination, description = link.description } = effect;
      const next = { ...link, destination, description };
      if (!samePdfLink(next, link)) count++;
      return [next];
    });
    return count === 0 ? { part: this, count } : { part: this.with(links), count };
  }

  differences(later: LinkedPart<PdfPage>): LinkDifference[] {
    const old = new Map(this.content.links.map((link) => [link.id, link]));
    const differences: LinkDifference[] = [];
    for (const link of later.content.links) {
      const was = old.get(link.id);
      old.delete(link.id);
      if (!was) differences.push({ kind: "added", after: stateOf(link) });
      else if (!samePdfLink(was, link))
        differences.push({ kind: "changed", before: stateOf(was), after: stateOf(link) });
    }
    for (const gone of old.values()) differences.push({ kind: "removed", before: stateOf(gone) });
    return differences;
  }

  takenBack(differences: readonly LinkDifference[]): { part: FinishedPage; count: number } {
    let count = 0;
    const made = new Map(
      differences.flatMap((one) => (one.kind === "removed" ? [] : [[one.after.id, one] as const])),
    );
    const links = this.content.links.flatMap((link): PdfLink[] => {
      const difference = made.get(link.id);
      if (!difference || !sameDestination(link.destination, difference.after.destination)) return [link];
      count++;
      if (difference.kind === "added") return [];
      const { destination, description } = difference.before;
      return [{ ...link, destination, description }];
    });
    return { part: this.with(links), count };
  }

  private with(links: PdfLink[]): FinishedPage {
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

function stateOf({ id, words, destination, description }: PdfLink): LinkState {
  return { id, text: words, destination, description };
}
