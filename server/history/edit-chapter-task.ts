import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { withTitle } from "@vennet/core/manuscript/chapter";
import { changeLinks } from "@vennet/core/manuscript/change-links";
import { putAnchor, removeAnchor, renameAnchor, replaceInLists } from "@vennet/core/manuscript/edit-anchors";
import { linkRanges, type LinkChange } from "@vennet/core/manuscript/edit-links";
import type { LinkDifference } from "@vennet/core/manuscript/versions";
import type { LinkedPart } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { derivePart, type DerivedChapter } from "../chapters/derived-chapter.ts";
import { readPart, type AnyPart } from "../chapters/read-part.ts";
import { effectOf } from "../links/link-effects.ts";
import type { LinkEdit } from "../links/links.dto.ts";
import type { ChapterChange } from "./book-step.entity.ts";

/** What is changed in a chapter's text without its author's hand in it, said so that it can cross to another process. */
export type ChapterEdit =
  | { kind: "title"; title: string }
  /** The whole text, as JSON. */
  | { kind: "replace"; document: string }
  | { kind: "edit-links"; ids: ReadonlySet<string>; edit: LinkEdit }
  | { kind: "mend-links"; changes: ReadonlyMap<string, LinkChange> }
  | {
      kind: "link-ranges";
      ranges: { from: number; to: number; destination: Destination }[];
      description: string | null;
    }
  | { kind: "put-anchor"; id: string; from: number; to: number }
  | { kind: "rename-anchor"; id: string; name: string }
  /** `isHere`: whether the anchor stands in this chapter; `to`: what leads to it then, null for nothing new. */
  | { kind: "remove-anchor"; id: string; isHere: boolean; to: string | null }
  /** What a step did to the chapter it changed as the how many-th; its changes are JSON. */
  | { kind: "take-back"; changes: string; at: number };

/** A chapter's text as it was changed. */
export interface EditedChapter {
  text: DerivedChapter;
  /** How many links were changed on purpose. */
  count: number;
  /** How many of its links differ then, and how, as JSON. */
  differing: number;
  differences: string;
}

/**
 * Changes a chapter's text.
 * @param document as JSON
 * @returns null where nothing of it changes
 */
export function run({ document, edit }: { document: string; edit: ChapterEdit }): EditedChapter | null {
  const before = readPart(document);
  const { part, count } = edited(before, edit);
  // To take back what is gone already is to write the text again.
  if (part.content === before.content && edit.kind !== "take-back") return null;
  const differences = before.differences(part as never);
  return {
    text: derivePart(part),
    count,
    differing: differences.length,
    differences: JSON.stringify(differences),
  };
}

interface Edited {
  part: LinkedPart<unknown>;
  count: number;
}

function edited(before: AnyPart, edit: ChapterEdit): Edited {
  switch (edit.kind) {
    case "replace":
      return { part: readPart(edit.document), count: 0 };
    case "edit-links": {
      const effectOn = effectOf(edit.edit);
      return before.changed((link) => (edit.ids.has(link.id) ? effectOn(link) : null));
    }
    case "mend-links":
      return before.changed(({ id }) => edit.changes.get(id) ?? null);
    case "take-back": {
      const { links } = (JSON.parse(edit.changes) as ChapterChange[])[edit.at]!;
      return before.takenBack(links as LinkDifference[]);
    }
    default: {
      if (!(before instanceof ManuscriptChapter)) return { part: before, count: 0 };
      const { doc, count } = editedText(before.content, edit);
      return { part: doc === before.content ? before : new ManuscriptChapter(doc), count };
    }
  }
}

/** What is done to the text itself, which only manuscripts have. */
function editedText(
  before: Node,
  edit: Exclude<ChapterEdit, { kind: "replace" | "edit-links" | "mend-links" | "take-back" }>,
): { doc: Node; count: number } {
  switch (edit.kind) {
    case "title":
      return { doc: withTitle(before, edit.title), count: 0 };
    case "link-ranges":
      return { doc: linkRanges(before, edit.ranges, edit.description), count: edit.ranges.length };
    case "put-anchor": {
      const change = new Transform(before);
      putAnchor(change, edit.from, edit.to, edit.id);
      return { doc: change.doc, count: 0 };
    }
    case "rename-anchor": {
      const change = new Transform(before);
      renameAnchor(change, edit.id, edit.name);
      return { doc: change.doc, count: 0 };
    }
    case "remove-anchor":
      return withoutAnchor(before, edit);
  }
}

function withoutAnchor(
  before: Node,
  { id, isHere, to }: Extract<ChapterEdit, { kind: "remove-anchor" }>,
): { doc: Node; count: number } {
  const { doc, count } =
    to === null
      ? { doc: before, count: 0 }
      : changeLinks(before, ({ destination }) =>
          destination.kind === "place" && destination.target === id
            ? { destination: { kind: "place", target: to } }
            : null,
        );
  const change = new Transform(doc);
  replaceInLists(change, id, to);
  if (isHere) removeAnchor(change, id);
  return { doc: change.doc, count };
}
