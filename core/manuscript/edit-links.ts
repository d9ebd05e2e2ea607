import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import type { Destination } from "../destination/kinds/kinds.ts";
import { ManuscriptError } from "./errors.ts";
import type { Hotspot } from "./hotspot.ts";
import { withId } from "./fresh-ids.ts";
import { newId } from "./ids.ts";
import type { OwnLook } from "./looks.ts";
import { linkUses, type LinkUse } from "./links.ts";
import {
  inlineBetween,
  replaceInline,
  reworded,
  withOuterBlanks,
  withoutWords,
  type BlanksThen,
} from "./reword.ts";
import { pictureAttrs } from "./attributes.ts";
import { linkMark, linkOn, schema } from "./schema.ts";

/** What may be changed about a link; what is left out stays. */
export interface LinkChange {
  text?: string;
  destination?: Destination;
  description?: string | null;
  asText?: boolean;
  look?: OwnLook | null;
  newWindow?: boolean;
  /** Whether the link gives up the blanks at its ends, which stay in the text. */
  trim?: true;
  /** Whether a link of a tagged finished file is put into its structure. Of a manuscript every link is in that. */
  inStructure?: true;
}

/** Whether a change is one of the link’s mark, and not of its words alone. */
export function changesMark(change: LinkChange): boolean {
  return Object.keys(change).some((key) => key !== "text" && key !== "trim");
}

/**
 * Changes a link where it stands. Its id stays, and so do the marks of the words that stay. Of a cross-reference
 * only the place that it follows can be changed.
 */
export function changeLink(change: Transform, use: LinkUse, to: LinkChange): void {
  if (use.on === "reference") {
    if (to.destination?.kind === "place") change.setNodeAttribute(use.from, "target", to.destination.target);
    return;
  }
  if (use.on === "hotspot") {
    const { text, destination, description } = to;
    replaceHotspot(change, use, {
      ...(destination === undefined ? {} : { destination }),
      ...(description === undefined ? {} : { description }),
      ...(text === undefined ? {} : { alt: text }),
    });
    return;
  }
  const mark = linkMark({ ...use, ...to });
  if (changesMark(to)) for (const part of use.parts) change.addMark(part.from, part.to, mark);
  if (to.trim) {
    const then = blanksOf(change.doc, use);
    for (const [i, { from, to: end }] of [...use.parts.entries()].reverse())
      replaceInline(
        change,
        from,
        end,
        withOuterBlanks(
          inlineBetween(change.doc, from, end).content,
          blanksOfPart(then, i, use.parts.length),
        ),
      );
    return;
  }
  if (to.text === undefined || to.text === use.text) return;
  if (use.on === "picture") {
    change.setNodeAttribute(use.from, "alt", to.text);
    return;
  }
  // From the last part to the first, so that what stands before keeps its position.
  for (const { from, to: end } of use.parts.slice(1).reverse())
    replaceInline(change, from, end, withoutWords(inlineBetween(change.doc, from, end).content));
  const [{ from, to: end }] = use.parts as [LinkUse["parts"][number]];
  replaceInline(change, from, end, reworded(inlineBetween(change.doc, from, end).content, to.text));
}

/** What becomes of the blanks of the how many-th part of a link. */
export function blanksOfPart(
  { start, end }: Record<"start" | "end", BlanksThen>,
  part: number,
  parts: number,
): Record<"start" | "end", BlanksThen> {
  return { start: part === 0 ? start : "linked", end: part === parts - 1 ? end : "linked" };
}

/** What becomes of the blanks at a link’s ends where it gives them up: where others stand beside them they are not needed. */
export function blanksOf(
  doc: Node,
  { from, to }: Pick<LinkUse, "from" | "to">,
): Record<"start" | "end", BlanksThen> {
  const before = doc.resolve(from).nodeBefore;
  const behind = doc.resolve(to).nodeAfter;
  return {
    start: !before || /\s$/.test(before.text ?? "") ? "gone" : "unlinked",
    end: !behind || /^\s/.test(behind.text ?? "") ? "gone" : "unlinked",
  };
}

/**
 * Takes a link away and keeps its words or its picture; of a hotspot the area goes too, and a
 * cross-reference, which has no words of its own, altogether.
 */
export function unlink(change: Transform, use: LinkUse): void {
  if (use.on === "hotspot") replaceHotspot(change, use, null);
  else if (use.on === "reference") change.delete(use.from, use.to);
  else for (const part of use.parts) change.removeMark(part.from, part.to, schema.marks.link!);
}

/**
 * Makes one link of a range, through as many paragraphs as it touches. A link that lies inside gives way;
 * of one that reaches in from outside the rest stays, and where two pieces stay the second is a link of its own.
 * @param uses the links among which those in the way are
 * @returns the new link's id, or null where the range holds nothing that can be linked
 */
export function linkRange(
  change: Transform,
  from: number,
  to: number,
  link: { destination: Destination; description?: string | null },
  uses: readonly LinkUse[] = linkUses(change.doc),
): string | null {
  for (const use of uses) {
    const reachesOut = use.from < from || use.to > to;
    if (use.on !== "hotspot" && use.on !== "reference" && reachesOut && use.from < to && use.to > from)
      keepRest(change, use, from, to);
  }
  const id = newId();
  let linked = false;
  const { destination, description = null } = link;
  change.doc.nodesBetween(from, to, (node, position) => {
    if (!node.isTextblock) return true;
    const start = Math.max(from, position + 1);
    const end = Math.min(to, position + node.nodeSize - 1);
    if (start < end) {
      change.addMark(start, end, schema.mark("link", { id, destination, description }));
      linked = true;
    }
    return false;
  });
  return linked ? id : null;
}

/** Leaves of a link what lies outside of a range; blanks at its new ends are no part of it. */
function keepRest(change: Transform, use: LinkUse, from: number, to: number): void {
  unlink(change, use);
  const pieces = [
    use.parts.map((part) => ({ from: part.from, to: Math.min(part.to, from) })),
    use.parts.map((part) => ({ from: Math.max(part.from, to), to: part.to })),
  ].map((parts) =>
    parts
      .filter((part) => part.from < part.to)
      .map((part) => withoutOuterBlanks(change.doc, part.from, part.to))
      .filter((part) => part.from < part.to),
  );
  let id = use.id;
  for (const parts of pieces) {
    if (parts.length === 0) continue;
    for (const part of parts) change.addMark(part.from, part.to, linkMark({ ...use, id }));
    id = newId();
  }
}

/**
 * Links many ranges of a document, each as `linkRange` would; a link around a range is given its destination instead.
 * @throws ManuscriptError `range` where one lies outside of the document
 */
export function linkRanges(
  doc: Node,
  ranges: readonly { from: number; to: number; destination: Destination }[],
  description: string | null,
): Node {
  const change = new Transform(doc);
  // Marks move nothing, so the links of the document stay as they are, as long as no range lies over another or cuts one.
  const inOrder = [...ranges].sort((a, b) => a.from - b.from);
  const areApart =
    inOrder.every(({ to }, i) => to <= (inOrder[i + 1]?.from ?? Infinity)) &&
    !cutsAny(inOrder, linkUses(doc));
  const gone = new Set<LinkUse>();
  let next = 0;
  for (const { from, to, destination } of inOrder) {
    if (to > doc.content.size || from >= to)
      throw new ManuscriptError("range", "A place to link lies outside of its chapter.");
    const all = areApart ? linkUses(doc) : linkUses(change.doc);
    if (!areApart) next = 0;
    while (next < all.length && all[next]!.to <= from) next++;
    const met: LinkUse[] = [];
    for (let i = next; i < all.length && all[i]!.from < to; i++)
      if (all[i]!.on !== "hotspot" && all[i]!.on !== "reference" && !gone.has(all[i]!)) met.push(all[i]!);
    const around = met.find((use) => use.from <= from && to <= use.to);
    if (around) changeLink(change, around, { destination });
    else {
      linkRange(change, from, to, { destination, description }, met);
      for (const use of met) gone.add(use);
    }
  }
  giveOwnIds(change);
  return change.doc;
}

/** Whether one of some ranges in order holds a part of a link, and not all of it. */
function cutsAny(ranges: readonly { from: number; to: number }[], uses: readonly LinkUse[]): boolean {
  let next = 0;
  return ranges.some(({ from, to }) => {
    while (next < uses.length && uses[next]!.to <= from) next++;
    for (let i = next; i < uses.length && uses[i]!.from < to; i++) {
      const use = uses[i]!;
      const isInside = from <= use.from && use.to <= to;
      const isAround = use.from <= from && to <= use.to;
      if (!isInside && !isAround && use.to > from) return true;
    }
    return false;
  });
}

/**
 * Gives every link and landing place of a document an id of its own: the first of several equal ones
 * keeps it, the others get new ones. A link torn apart by other words counts as two.
 */
export function giveOwnIds(change: Transform): void {
  const seen = new Set<string>();
  change.doc.descendants((node, position) => {
    if (node.type.name === "picture") {
      const { hotspots } = pictureAttrs(node);
      if (!hotspots.some(({ id }) => seen.has(id))) {
        for (const { id } of hotspots) seen.add(id);
        return;
      }
      const own = hotspots.map((hotspot) => (seen.has(hotspot.id) ? { ...hotspot, id: newId() } : hotspot));
      for (const { id } of own) seen.add(id);
      change.setNodeAttribute(position, "hotspots", own);
    }
    if (!withId.has(node.type.name)) return;
    const id = node.attrs["id"] as string;
    if (id !== "unset" && !seen.has(id)) seen.add(id);
    else change.setNodeAttribute(position, "id", newId());
  });
  const links = new Set<string>();
  for (const use of linkUses(change.doc)) {
    if (use.on === "hotspot" || use.on === "reference") continue;
    if (!links.has(use.id)) {
      links.add(use.id);
      continue;
    }
    const mark = linkMark({ ...use, id: newId() });
    for (const part of use.parts) change.addMark(part.from, part.to, mark);
  }
}

/** A range without the blanks at its ends: a link covers the words alone (common practice). */
export function withoutOuterBlanks(doc: Node, from: number, to: number): { from: number; to: number } {
  const at = (position: number): string => doc.textBetween(position, position + 1, "\n", "\ufffc");
  const isBlank = (position: number): boolean => /^\s*$/.test(at(position));
  while (from < to && isBlank(from)) from++;
  while (to > from && isBlank(to - 1)) to--;
  return { from, to };
}

/** Whether any of a range is linked already. */
export function isLinked(doc: Node, from: number, to: number): boolean {
  let linked = false;
  doc.nodesBetween(from, to, (node) => {
    if (node.isInline && linkOn(node)) linked = true;
  });
  return linked;
}

function replaceHotspot(change: Transform, use: LinkUse, to: Partial<Hotspot> | null): void {
  const { hotspots } = pictureAttrs(change.doc.nodeAt(use.from)!);
  const next = hotspots.flatMap((hotspot) =>
    hotspot.id !== use.id ? [hotspot] : to === null ? [] : [{ ...hotspot, ...to }],
  );
  change.setNodeAttribute(use.from, "hotspots", next);
}
