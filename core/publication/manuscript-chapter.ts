import type { Node } from "prosemirror-model";
import { sameDestination } from "../destination/destination.ts";
import { changeLinks, type LinkEffect } from "../manuscript/change-links.ts";
import { chapterTitle, countWords, writeChapter } from "../manuscript/chapter.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { placesOf, type Place } from "../manuscript/outline.ts";
import { linkDifferences, type LinkDifference } from "../manuscript/versions.ts";
import type { LinkedPart, PublicationLink } from "./linked-part.ts";

/** A chapter of a manuscript as a part of a publication. */
export class ManuscriptChapter implements LinkedPart<Node> {
  constructor(readonly content: Node) {}

  get title(): string {
    return chapterTitle(this.content);
  }

  get words(): number {
    return countWords(this.content);
  }

  toJson(): unknown {
    return writeChapter(this.content);
  }

  links(): readonly PublicationLink[] {
    const headings = headingsOf(this.content);
    let passed = 0;
    return linkUses(this.content).map(
      ({ id, text, parts, destination, description, asText, look, on, from }) => {
        while (passed < headings.length && headings[passed]!.position < from) passed++;
        return {
          id,
          text,
          parts,
          destination,
          description,
          asText,
          look,
          on,
          under: headings[passed - 1]?.text ?? "",
        };
      },
    );
  }

  places(): readonly Place[] {
    return placesOf(this.content);
  }

  changed(effectOn: (link: PublicationLink) => LinkEffect): { part: ManuscriptChapter; count: number } {
    const links = this.links();
    const { doc, count } = changeLinks(this.content, (_, ordinal) => effectOn(links[ordinal]!));
    return { part: doc === this.content ? this : new ManuscriptChapter(doc), count };
  }

  differences(later: LinkedPart<Node>): LinkDifference[] {
    return linkDifferences(this.content, later.content);
  }

  takenBack(differences: readonly LinkDifference[]): { part: ManuscriptChapter; count: number } {
    // Where a removed link stood nobody can say once the text was changed.
    const made = new Map(
      differences.flatMap((difference) =>
        difference.kind === "removed" ? [] : [[difference.after.id, difference]],
      ),
    );
    const { doc, count } = changeLinks(this.content, (use) => {
      const difference = made.get(use.id);
      // The first alone, where words between have torn the link apart since.
      made.delete(use.id);
      return difference ? backFrom(difference, use) : null;
    });
    return { part: new ManuscriptChapter(doc), count };
  }
}

/** What takes one link's change back, if the link is still as the change left it. */
function backFrom(difference: Exclude<LinkDifference, { kind: "removed" }>, use: LinkUse): LinkEffect {
  const { after } = difference;
  if (!sameDestination(use.destination, after.destination)) return null;
  if (difference.kind === "added") return "remove";
  const { destination, description, text, look } = difference.before;
  const words = text === after.text || use.text !== after.text ? {} : { text };
  return { destination, description, ...words, ...(look === undefined ? {} : { look }) };
}

function headingsOf(doc: Node): { position: number; text: string }[] {
  const headings: { position: number; text: string }[] = [];
  doc.descendants((node, position) => {
    if (node.type.name === "heading") headings.push({ position, text: node.textContent.trim() });
    return !node.isTextblock;
  });
  return headings;
}
