import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { sameDestination } from "../destination/destination.ts";
import { changeLink, unlink } from "../manuscript/edit-links.ts";
import { linkUses } from "../manuscript/links.ts";
import { placesOf, type Place } from "../manuscript/outline.ts";
import { linkDifferences, type LinkDifference } from "../manuscript/versions.ts";
import type { LinkedPart, LinkEffect, PublicationLink } from "./linked-part.ts";

/** A chapter of a manuscript as a part of a publication. */
export class ManuscriptChapter implements LinkedPart<Node> {
  constructor(readonly content: Node) {}

  links(): readonly PublicationLink[] {
    const headings = headingsOf(this.content);
    let passed = 0;
    return linkUses(this.content).map(({ id, text, parts, destination, description, asText, on, from }) => {
      while (passed < headings.length && headings[passed]!.position < from) passed++;
      return {
        id,
        text,
        parts,
        destination,
        description,
        asText,
        on,
        under: headings[passed - 1]?.text ?? "",
      };
    });
  }

  places(): readonly Place[] {
    return placesOf(this.content);
  }

  changed(effectOn: (link: PublicationLink) => LinkEffect): { part: ManuscriptChapter; count: number } {
    const change = new Transform(this.content);
    const links = this.links();
    const uses = linkUses(this.content);
    let count = 0;
    // From the last link to the first, so that what stands before keeps its position.
    for (let i = uses.length - 1; i >= 0; i--) {
      const effect = effectOn(links[i]!);
      if (effect === null) continue;
      count++;
      if (effect === "remove") unlink(change, uses[i]!);
      else changeLink(change, uses[i]!, effect);
    }
    return { part: change.docChanged ? new ManuscriptChapter(change.doc) : this, count };
  }

  differences(later: LinkedPart<Node>): LinkDifference[] {
    return linkDifferences(this.content, later.content);
  }

  takenBack(differences: readonly LinkDifference[]): { part: ManuscriptChapter; count: number } {
    const change = new Transform(this.content);
    const count = differences.filter((difference) => takeBack(change, difference)).length;
    return { part: new ManuscriptChapter(change.doc), count };
  }
}

/** Takes one link's change back, if the link is still as the change left it. */
function takeBack(change: Transform, difference: LinkDifference): boolean {
  // Where a removed link stood nobody can say once the text was changed.
  if (difference.kind === "removed") return false;
  const { after } = difference;
  const use = linkUses(change.doc).find(({ id }) => id === after.id);
  if (!use || !sameDestination(use.destination, after.destination)) return false;
  if (difference.kind === "added") unlink(change, use);
  else {
    const { destination, description, text } = difference.before;
    const words = text === after.text || use.text !== after.text ? {} : { text };
    changeLink(change, use, { destination, description, ...words });
  }
  return true;
}

function headingsOf(doc: Node): { position: number; text: string }[] {
  const headings: { position: number; text: string }[] = [];
  doc.descendants((node, position) => {
    if (node.type.name === "heading") headings.push({ position, text: node.textContent.trim() });
    return !node.isTextblock;
  });
  return headings;
}
