import GithubSlugger from "github-slugger";
import type { Element } from "hast";
import { toString } from "hast-util-to-string";
import { Fragment, type Node } from "prosemirror-model";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { longestPlaceId } from "../../destination/kinds/place.ts";
import { topOfBook } from "../../manuscript/book-index.ts";
import type { Hotspot } from "../../manuscript/hotspot.ts";
import { signpostAttrs, type SignpostList } from "../../manuscript/attributes.ts";
import { newId } from "../../manuscript/ids.ts";
import { namesOf } from "../hast-nodes.ts";

/** The landing places of a file: the names by which its own links call them, with the ids that the manuscript gives. */
export class FilePlaces {
  private readonly ids = new Map<string, string>();
  private readonly led = new Map<string, string>();
  private readonly longNames = new Map<string, string>();
  private readonly lists = new Map<string, Pick<SignpostList, "section" | "anchors">>();
  private readonly slugger = new GithubSlugger();

  has(name: string): boolean {
    return this.ids.has(name);
  }

  set(name: string, id: string): void {
    this.ids.set(name, id);
  }

  /** Whatever leads to one place leads to another: an anchor at its beginning is the heading itself. */
  lead(from: string, to: string): void {
    this.led.set(from, to);
  }

  /** A new place under the names that an element has, as far as nothing has them yet. */
  placeOf(element: Element): string {
    const id = newId();
    for (const name of namesOf(element)) if (!this.ids.has(name)) this.ids.set(name, id);
    return id;
  }

  /** A new place for a heading, which links may call by its words too. */
  headingPlace(element: Element): string {
    const id = newId();
    const slug = this.slugger.slug(toString(element));
    if (!this.ids.has(slug)) this.ids.set(slug, id);
    for (const name of namesOf(element)) if (!this.ids.has(name)) this.ids.set(name, id);
    return id;
  }

  /** From where a signpost list draws its entries, by the names of the file. */
  listFrom(list: string, names: Pick<SignpostList, "section" | "anchors">): void {
    this.lists.set(list, names);
  }

  /** Every id that was given. */
  given(): Set<string> {
    return new Set([topOfBook, ...[...this.ids.values()].map((id) => this.led.get(id) ?? id)]);
  }

  /** A node in which links lead to the places that they name. */
  resolved(node: Node): Node {
    if (node.type.name === "signposts") return this.resolvedList(node);
    if (node.isText || node.isLeaf) return this.resolvedMarks(node);
    return node.copy(Fragment.from(node.children.map((child) => this.resolved(child))));
  }

  private resolvedList(node: Node): Node {
    const { section, anchors } = this.lists.get(signpostAttrs(node).id) ?? { section: null, anchors: [] };
    const known = (name: string): string[] => {
      const id = this.idFor(name);
      return id === undefined ? [] : [id];
    };
    return node.type.create({
      ...node.attrs,
      section: section === null ? null : (known(section)[0] ?? null),
      anchors: anchors.flatMap(known),
    });
  }

  private resolvedMarks(node: Node): Node {
    const marks = node.marks.map((mark) => {
      const destination = mark.attrs["destination"] as Destination | undefined;
      if (destination?.kind !== "place") return mark;
      return mark.type.create({ ...mark.attrs, destination: this.placeFor(destination.target) });
    });
    const { hotspots } = node.attrs as { hotspots?: Hotspot[] };
    if (!hotspots?.length) return node.mark(marks);
    const resolved = hotspots.map((hotspot) => {
      const { destination } = hotspot;
      return destination.kind === "place"
        ? { ...hotspot, destination: this.placeFor(destination.target) }
        : hotspot;
    });
    return node.type.create({ ...node.attrs, hotspots: resolved }, null, marks);
  }

  /** A link to a place that is named, until all places are known: a name may be longer than a place's id. */
  named(name: string): Destination {
    if (name.length <= longestPlaceId) return { kind: "place", target: name };
    const target = newId();
    this.longNames.set(target, name);
    return { kind: "place", target };
  }

  /** The place of a name; one that the file does not have is called by its name, as far as an id may be long. */
  private placeFor(target: string): Destination {
    const name = this.longNames.get(target) ?? target;
    return { kind: "place", target: this.idFor(name) ?? shortened(name) };
  }

  private idFor(name: string): string | undefined {
    if (name === topOfBook) return topOfBook;
    const id = this.ids.get(name) ?? this.ids.get(name.toLowerCase());
    // In whatever letters (WHATWG HTML, 7.4.6.4).
    if (id === undefined) return /^top$/i.test(name) ? topOfBook : undefined;
    return this.led.get(id) ?? id;
  }
}

/** A name as far as an id may be long, whole letters of it. */
function shortened(name: string): string {
  return name.slice(0, longestPlaceId).replace(/[\ud800-\udbff]$/, "");
}
