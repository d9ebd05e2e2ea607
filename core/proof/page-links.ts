import {
  foldBlanks,
  type ExportedDestination,
  type ExportedLink,
  type Fault,
  type ReadArea,
  type ReadNote,
} from "./exported-link.ts";
import { landingLength } from "./landing.ts";
import { LandingTexts } from "./landing-texts.ts";
import { PressWatch } from "./press-watch.ts";
import { whereInPage } from "./where-in-page.ts";

type Attributes = Readonly<Record<string, string>>;

/** A link as a page of HTML has it, before it is known what else there is. */
export interface PageLink {
  href: string;
  where: string;
  text: string;
  description: string | null;
  name: string | null;
  role: string | null;
  opensWindow: boolean;
  isInNote: boolean;
  unreachable: string | null;
  area: ReadArea | null;
  /** The list by which readers find the way that it is an entry of; null for a link of the text. */
  list: PageList | null;
  isInNav: boolean;
}

/** A `nav` of a page with a list in it. */
export interface PageList {
  /** Its `epub:type`; empty where it says none. */
  type: string;
}

const shapes = new Set(["rect", "ellipse", "polygon"]);

/**
 * Collects, while a page of HTML or XHTML is read from its first tag to its last, its links, the words at its places,
 * the beginnings of printed pages, and what keeps readers from links.
 */
export class PageLinks {
  readonly links: PageLink[] = [];
  /** Where printed pages begin, by their ids. */
  readonly breaks = new Map<string, string>();
  private readonly landings = new LandingTexts();
  private readonly watch: PressWatch;
  private readonly open: PageLink[] = [];
  private readonly navs: (PageList | null)[] = [];
  private readonly pictures: { width: number; height: number }[] = [];
  private readonly tags: string[] = [];
  private sheet = "";
  /** The first words of the page, on which it opens. */
  top = "";
  private isInList = 0;
  /** Open elements, by their depth, that are notes. */
  private readonly noteDepths: number[] = [];

  /** @param has whether a file that the page shows is there */
  constructor(
    private readonly page: string,
    private readonly has: (src: string) => boolean,
  ) {
    this.watch = new PressWatch(page);
  }

  get places(): ReadonlyMap<string, string> {
    return this.landings.found;
  }

  get faults(): Fault[] {
    return this.watch.faults;
  }

  /** A style sheet that the page takes; null where it is not there. */
  style(sheet: string | null): void {
    if (sheet === null) this.watch.tell("A style sheet of it is not there.");
    else this.watch.style(sheet);
  }

  /** A tag and its attributes, those of SVG 1.1 with the prefix of XLink. */
  enter(tag: string, given: Attributes): void {
    const attributes = withoutPrefix(given);
    this.tags.push(tag);
    this.watch.enter(tag, attributes);
    const { id } = attributes;
    const shown = tag === "img" ? attributes["src"] : tag === "image" ? attributes["href"] : undefined;
    if (shown !== undefined && !this.has(shown)) this.watch.tell(`The picture “${shown}” is not there.`);
    this.landings.open(tag, id ?? null);
    if (tag === "nav") this.navs.push({ type: attributes["epub:type"] ?? "" });
    if (tag === "li") this.isInList++;
    if (attributes["role"] === "doc-footnote") this.noteDepths.push(this.tags.length);
    if (tag === "svg") this.pictures.push(sizeOf(attributes));
    if (attributes["role"] === "doc-pagebreak" && id !== undefined)
      this.breaks.set(id, attributes["aria-label"] ?? attributes["title"] ?? "");
    if (tag === "a" && attributes["href"] !== undefined) this.enterLink(attributes, attributes["href"]);
    const link = this.open.at(-1);
    if (!link) return;
    if (tag === "a") link.unreachable ??= whyTwoWays(given);
    link.unreachable ??= this.watch.unreachable;
    const picture = this.pictures.at(-1);
    if (picture && shapes.has(tag)) link.area ??= areaOf(tag, attributes, picture);
    if (tag === "img") this.addToLinks(attributes["alt"] ?? "");
    if (tag === "br") this.addToLinks(" ");
  }

  text(words: string): void {
    if (this.tags.at(-1) === "style") this.sheet += words;
    this.landings.text(words);
    if (this.top.length < landingLength && this.tags.includes("body"))
      this.top = (this.top + words).replace(/\s+/g, " ").trimStart();
    this.addToLinks(words);
  }

  leave(): void {
    if (this.noteDepths.at(-1) === this.tags.length) this.noteDepths.pop();
    const tag = this.tags.pop()!;
    this.watch.leave();
    this.landings.close();
    if (tag === "nav") this.navs.pop();
    if (tag === "li") this.isInList--;
    if (tag === "style") {
      this.style(this.sheet);
      this.sheet = "";
    }
    if (tag === "svg") this.pictures.pop();
    if (tag === "a" && this.open.length > 0 && !this.tags.includes("a")) {
      const link = this.open.pop()!;
      if (this.pictures.length > 0) link.unreachable ??= whyNoArea(link.area);
    }
  }

  private enterLink(attributes: Attributes, href: string): void {
    const nav = this.navs.at(-1) ?? null;
    const link: PageLink = {
      href,
      where: whereInPage(this.page, attributes["id"] ?? null, this.links.length + 1),
      text: "",
      description: attributes["title"] ?? null,
      name: attributes["aria-label"] ?? null,
      role: attributes["role"] ?? null,
      opensWindow: (attributes["target"] ?? "_self") !== "_self",
      isInNote: this.noteDepths.length > 0,
      unreachable: null,
      area: null,
      list: this.isInList > 0 ? nav : null,
      isInNav: nav !== null,
    };
    this.links.push(link);
    this.open.push(link);
  }

  private addToLinks(words: string): void {
    for (const link of this.open) link.text += words;
  }
}

/** A page's link as the proof compares it. */
export function exportedLink(link: PageLink, destination: ExportedDestination): ExportedLink {
  const { where, description, name, role, opensWindow, isInNote, unreachable, area } = link;
  return {
    destination,
    text: foldBlanks(link.text),
    description,
    where,
    page: null,
    boxes: [],
    apparatus: link.isInNav,
    unreachable,
    name,
    role,
    opensWindow,
    isInNote,
    area,
  };
}

/** The notes of pages by their marks in the text. */
export function marksOf(links: readonly ExportedLink[]): ReadNote[] {
  return links
    .filter(({ role, isInNote }) => role === "doc-noteref" && !isInNote)
    .map(({ text, destination, where }) => ({
      words: text,
      landing: destination.kind === "place" ? destination.landing : null,
      leadsBack: true,
      where,
    }));
}

function sizeOf({ viewBox = "", viewbox = "" }: Attributes): { width: number; height: number } {
  const [, , width = 1, height = 1] = foldBlanks(viewBox || viewbox)
    .split(/[ ,]+/)
    .map(Number);
  return { width, height };
}

/** The area that a shape of SVG 1.1 (9.2 to 9.7) takes of its picture. */
function areaOf(tag: string, attributes: Attributes, picture: { width: number; height: number }): ReadArea {
  const of = (name: string): number => Number(attributes[name] ?? 0);
  const share = (x: number, y: number): [number, number] => [x / picture.width, y / picture.height];
  if (tag === "polygon") {
    const numbers = (attributes["points"] ?? "")
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    const points = Array.from({ length: numbers.length >> 1 }, (_, i) =>
      share(numbers[2 * i]!, numbers[2 * i + 1]!),
    );
    return { shape: "polygon", points };
  }
  if (tag === "rect") {
    const [x, y] = [of("x"), of("y")];
    return { shape: "rectangle", points: [share(x, y), share(x + of("width"), y + of("height"))] };
  }
  const [x, y, across, down] = [of("cx"), of("cy"), of("rx"), of("ry")];
  return { shape: "ellipse", points: [share(x - across, y - down), share(x + across, y + down)] };
}

function whyNoArea(area: ReadArea | null): string | null {
  if (area === null) return "Its area of the picture is not there.";
  const xs = area.points.map(([x]) => x);
  const ys = area.points.map(([, y]) => y);
  const hasSize = Math.max(...xs) > Math.min(...xs) && Math.max(...ys) > Math.min(...ys);
  return hasSize ? null : "Its area of the picture has no size.";
}

/** Attributes by their names alone; one of SVG 2 comes before its elder of XLink (SVG 2, 16.1.6). */
function withoutPrefix(attributes: Attributes): Attributes {
  if (!Object.keys(attributes).some((name) => name.startsWith("xlink:"))) return attributes;
  const named = (ofXLink: boolean): [string, string][] =>
    Object.entries(attributes).flatMap(([name, value]): [string, string][] =>
      name.startsWith("xlink:") === ofXLink ? [[name.replace("xlink:", ""), value]] : [],
    );
  return Object.fromEntries([...named(true), ...named(false)]);
}

/** Which of the two addresses of a link in SVG is followed depends on the reader's program. */
function whyTwoWays({ href, "xlink:href": older }: Attributes): string | null {
  return href === undefined || older === undefined || href === older
    ? null
    : `It leads to “${href}” or to “${older}”, as the reader’s program has it.`;
}
