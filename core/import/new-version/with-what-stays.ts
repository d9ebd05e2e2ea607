import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { writeDestination } from "../../destination/destination.ts";
import { giveOwnIds } from "../../manuscript/edit-links.ts";
import { linkUses } from "../../manuscript/links.ts";
import { schema } from "../../manuscript/schema.ts";
import { align } from "./align.ts";

/**
 * A new version of a chapter of which nothing is known as it was brought in: blocks with the same words and links as
 * here are those that are here, with all that a file does not show; lists that follow the headings stay.
 */
export function withWhatStays(arrived: Node, here: Node): Node {
  const signOf = (block: Node): string =>
    `${block.type.name} ${lettersIn(block)} ${linksOf(block).join(" ")}`;
  const pairs = new Map(
    align([...here.children], [...arrived.children], signOf, () => "").map(([known, one]) => [one, known]),
  );
  const kept: Node[] = [];
  let at = 0;
  const stay = (until: number): void => {
    for (const block of here.children.slice(at, until))
      if (block.type === schema.nodes.signposts) kept.push(block);
    at = until;
  };
  for (const block of arrived.children) {
    const known = pairs.get(block);
    if (known) stay(here.children.indexOf(known));
    kept.push(known && signOf(known) === signOf(block) ? known : block);
    if (known) at = here.children.indexOf(known) + 1;
  }
  stay(here.childCount);
  const isNote = ({ type }: Node): boolean => type === schema.nodes.note;
  // Files have notes in the order of their numbers, a chapter in any.
  const placeOf = (note: Node): number => {
    const known = here.children.findIndex((one) => isNote(one) && one.attrs["id"] === note.attrs["id"]);
    return known === -1 ? here.childCount : known;
  };
  const notes = kept.filter(isNote).sort((a, b) => placeOf(a) - placeOf(b));
  const ordered = [...kept.filter((one) => !isNote(one)), ...notes];
  const change = new Transform(schema.nodes.doc!.create(null, ordered));
  giveOwnIds(change);
  return change.doc;
}

/** Numbers are left out: those of headings and captions stand in files, and not in the manuscript. */
function lettersIn(block: Node): string {
  return block.textContent.replace(/[^\p{L}]+/gu, "");
}

function linksOf(block: Node): string[] {
  return linkUses(schema.nodes.doc!.create(null, [block])).map(({ text, destination }) =>
    destination.kind === "place" ? `${text} →` : `${text} ${writeDestination(destination)}`,
  );
}
