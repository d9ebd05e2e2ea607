import { sameDestination } from "../../destination/destination.ts";
import { FinishedError } from "../errors.ts";
import type { LinksDone } from "../saved-file.ts";
import { addressIn, fragmentOf } from "./addresses.ts";
import { sameEpubLink, type EpubLink, type EpubPage, type EpubPlace, type PlaceInEpub } from "./epub-page.ts";
import { groundIn, stretchesOfLinks } from "./ground.ts";
import type { ReadEpubPage } from "./read-finished.ts";
import type { SourceElement, Stretch, XhtmlSource } from "./xhtml-source.ts";

/** What stands for a stretch of the source. Of two at one spot the one with the lower rank comes first. */
interface Edit {
  at: Stretch;
  text: string;
  rank: number;
}

/**
 * The source of a page with its links as they are to be; every other letter of it stays.
 * @param before the page as the file that came has it
 * @param linked the places of the page to which links lead that are to be, of whatever page
 * @throws FinishedError where the page is another than that whose links are to be, or a link cannot be put in
 */
export function writeLinks(
  before: ReadEpubPage,
  after: EpubPage,
  places: ReadonlyMap<string, PlaceInEpub>,
  linked: readonly EpubPlace[],
): { text: string } & LinksDone {
  const writing = new WritingPage(before, after, places);
  writing.links();
  for (const place of linked) writing.name(place);
  return { text: writing.text(), ...writing.done };
}

class WritingPage {
  readonly done: LinksDone = { added: 0, changed: 0, removed: 0 };
  private readonly edits: Edit[] = [];
  private readonly source: XhtmlSource;

  constructor(
    private readonly before: ReadEpubPage,
    private readonly after: EpubPage,
    private readonly places: ReadonlyMap<string, PlaceInEpub>,
  ) {
    this.source = before.source;
  }

  links(): void {
    const { page, elements } = this.before;
    const wanted = new Map(
      this.after.links.flatMap((link) => (link.from === null ? [] : [[link.from, link]])),
    );
    const left = new Set(this.after.untouched.map(({ from }) => from));
    for (const was of page.links) {
      const link = wanted.get(was.from!);
      wanted.delete(was.from!);
      const element = elements[was.from!]!;
      if (!link) this.remove(element);
      else if (!sameEpubLink(link, was)) this.change(element, was, link);
    }
    // What stayed as it is may have been led elsewhere.
    for (const { from } of page.untouched) {
      const link = wanted.get(from);
      wanted.delete(from);
      if (link) this.change(elements[from]!, null, link);
      else if (!left.has(from)) this.remove(elements[from]!);
    }
    if (wanted.size > 0)
      throw new FinishedError(
        "changed",
        `The page ${page.path} has other links than those that are to be written.`,
      );
    const others = stretchesOfLinks(elements, this.after);
    for (const link of this.after.links) if (link.from === null) others.push(this.add(link, others));
  }

  /** Gives the element that a place is a name, where it has none. */
  name(place: EpubPlace): void {
    if (place.fragment !== null) return;
    const element = this.source.elements[place.element];
    if (!element) throw new FinishedError("changed", `The page ${this.after.path} is another than it was.`);
    this.setAttribute(element, "id", fragmentOf(place, this.after));
  }

  text(): string {
    const inOrder = this.edits
      .map((edit, i) => ({ ...edit, i }))
      .sort((a, b) => a.at[0] - b.at[0] || a.at[1] - b.at[1] || a.rank - b.rank || a.i - b.i);
    let text = "";
    let done = 0;
    for (const { at, text: put } of inOrder) {
      if (at[0] < done)
        throw new FinishedError("changed", `Two changes on the page ${this.after.path} meet at one spot.`);
      text += this.source.source.slice(done, at[0]) + put;
      done = at[1];
    }
    return text + this.source.source.slice(done);
  }

  private put(at: Stretch, text: string, rank = 0): void {
    this.edits.push({ at, text, rank });
  }

  private change(element: SourceElement, was: EpubLink | null, link: EpubLink): void {
    this.done.changed++;
    if (!was || !sameDestination(was.destination, link.destination)) {
      const attribute = element.attributes.has("href") ? "href" : "xlink:href";
      this.setAttribute(element, attribute, addressIn(this.after.path, link.destination, this.places));
    }
    // Of what stayed as it is nobody knew what it says besides.
    if (!was || (was.description || null) !== (link.description || null)) {
      const attribute = element.attributes.has("xlink:href") ? "xlink:title" : "title";
      this.setAttribute(element, attribute, link.description || null);
    }
    if (was && was.words !== link.words) this.say(element, link);
  }

  private say(element: SourceElement, link: EpubLink): void {
    if (!link.hasOwnWords)
      throw new FinishedError(
        "page",
        `What “${link.words.slice(0, 80)}” says cannot be changed in the file.`,
      );
    if (element.name === "area") return this.setAttribute(element, "alt", link.words);
    const picture = this.source.within(element).find(({ name }) => name === "img");
    if (picture) return this.setAttribute(picture, "alt", link.words);
    const [first, ...rest] = this.source.stretchesOf(element.from, element.to);
    if (first) this.put(first, escaped(link.words));
    else if (element.close) this.put([element.close[0], element.close[0]], escaped(link.words));
    // All the words stand where the link began; what was emphasised among them is not known any more.
    for (const stretch of rest) this.put(stretch, "");
  }

  /** What is in the link stays, and so does what others may lead to. */
  private remove(element: SourceElement): void {
    this.done.removed++;
    if (element.name === "area") {
      this.put([element.open[0], (element.close ?? element.open)[1]], "");
      return;
    }
    const { attributes } = element;
    if (!attributes.has("id") && !attributes.has("name")) {
      this.put(element.open, "");
      if (element.close) this.put(element.close, "");
      return;
    }
    for (const name of ofLinks) if (attributes.has(name)) this.setAttribute(element, name, null);
  }

  /** @returns what of the source it lies around */
  private add(link: EpubLink, others: readonly Stretch[]): Stretch {
    this.done.added++;
    const { prefix } = this.source;
    const title = link.description ? ` title="${escaped(link.description)}"` : "";
    const address = escaped(addressIn(this.after.path, link.destination, this.places));
    const around = groundIn(this.source, others, link);
    this.put([around[0], around[0]], `<${prefix}a href="${address}"${title}>`, 2);
    this.put([around[1], around[1]], `</${prefix}a>`, 1);
    return around;
  }

  private setAttribute(element: SourceElement, name: string, value: string | null): void {
    const there = element.attributes.get(name);
    if (!there) {
      if (value !== null) this.addAttribute(element, name, value);
      return;
    }
    const [from, to] = there.at;
    if (value !== null) return this.put([from, to], `${name}="${escaped(value)}"`);
    // With the blank before it.
    const blank = /\s/.test(this.source.source[from - 1] ?? "") ? 1 : 0;
    this.put([from - blank, to], "");
  }

  private addAttribute(element: SourceElement, name: string, value: string): void {
    const at = element.open[0] + 1 + element.written.length;
    this.put([at, at], ` ${name}="${escaped(value)}"`);
  }
}

/** What of an element makes it a link, or says something of that. */
const ofLinks = ["href", "xlink:href", "title", "xlink:title", "epub:type", "role", "target", "rel"];

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
