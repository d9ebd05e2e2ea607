import { sameDestination } from "../destination/destination.ts";
import type { Destination } from "../destination/kinds/kinds.ts";
import type { LinkEffect } from "../manuscript/change-links.ts";
import type { LinkChange } from "../manuscript/edit-links.ts";
import type { Place } from "../manuscript/outline.ts";
import type { LinkDifference, LinkState } from "../manuscript/versions.ts";
import type { LinkedPart, PublicationLink } from "../publication/linked-part.ts";

/** What a link of a finished file is, whatever the file is. */
export interface LinkInPlace {
  id: string;
  words: string;
  destination: Destination;
  description: string | null;
}

/** A part of a finished file whose links are changed while all else of it stays as it is. */
export abstract class LinkedInPlace<
  Link extends LinkInPlace,
  Content extends { links: Link[] },
> implements LinkedPart<Content> {
  constructor(readonly content: Content) {}

  abstract readonly title: string;
  /** The words of a finished file are its own and are not counted. */
  readonly words = 0;
  abstract links(): readonly PublicationLink[];
  abstract places(): readonly Place[];
  /** Whether two links are the same to whoever meets them in the file. */
  protected abstract isSame(a: Link, b: Link): boolean;
  /** What a link is with what is asked of it, as far as the file lets it. */
  protected abstract changedLink(link: Link, change: LinkChange): Link;
  protected abstract with(links: Link[]): LinkedInPlace<Link, Content>;

  toJson(): unknown {
    return this.content;
  }

  changed(effectOn: (link: PublicationLink) => LinkEffect): {
    part: LinkedInPlace<Link, Content>;
    count: number;
  } {
    const effects = new Map(this.links().map((link) => [link.id, effectOn(link)]));
    let count = 0;
    const links = this.content.links.flatMap((link): Link[] => {
      const effect = effects.get(link.id) ?? null;
      if (effect === null) return [link];
      if (effect === "remove") {
        count++;
        return [];
      }
      const next = this.changedLink(link, effect);
      if (!this.isSame(next, link)) count++;
      return [next];
    });
    return count === 0 ? { part: this, count } : { part: this.with(links), count };
  }

  differences(later: LinkedPart<Content>): LinkDifference[] {
    const old = new Map(this.content.links.map((link) => [link.id, link]));
    const differences: LinkDifference[] = [];
    for (const link of later.content.links) {
      const was = old.get(link.id);
      old.delete(link.id);
      if (!was) differences.push({ kind: "added", after: stateOf(link) });
      else if (!this.isSame(was, link))
        differences.push({ kind: "changed", before: stateOf(was), after: stateOf(link) });
    }
    for (const gone of old.values()) differences.push({ kind: "removed", before: stateOf(gone) });
    return differences;
  }

  takenBack(differences: readonly LinkDifference[]): { part: LinkedInPlace<Link, Content>; count: number } {
    let count = 0;
    const made = new Map(
      differences.flatMap((one) => (one.kind === "removed" ? [] : [[one.after.id, one] as const])),
    );
    const links = this.content.links.flatMap((link): Link[] => {
      const difference = made.get(link.id);
      if (!difference || !sameDestination(link.destination, difference.after.destination)) return [link];
      count++;
      if (difference.kind === "added") return [];
      const { destination, description, text } = difference.before;
      return [this.changedLink(link, { destination, description, text })];
    });
    return { part: this.with(links), count };
  }
}

function stateOf({ id, words, destination, description }: LinkInPlace): LinkState {
  return { id, text: words, destination, description };
}
