import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { nameDestination, writeDestination } from "../../destination/destination.ts";
import type { DestinationNames } from "../../destination/kinds/kind.ts";
import { behindPath } from "../../destination/kinds/file.ts";
import { kindOf } from "../../destination/kinds/kinds.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import type { Frame } from "../../manuscript/hotspot.ts";
import type { LinkProof, LinkVerdict, ProofRow } from "../../proof/compare.ts";
import type { Fault } from "../../proof/exported-link.ts";
import { whereOf } from "../../proof/where-in-pdf.ts";
import { linkAsAsked } from "../link-as-asked.ts";
import { sameAddress } from "../same-address.ts";
import type { TellPage } from "../tell-page.ts";
import { addressOfBytes } from "./address-text.ts";
import { judgeAppended } from "./judge-appended.ts";
import { damaged } from "./open-pdf.ts";
import { titleOfPage } from "./finished-page.ts";
import { opened } from "./read-finished.ts";
import { boxAround, spotsOf, type Area, type PdfLink, type PdfPage, type Spot } from "./pdf-page.ts";

/** An annotation as pdf.js reads it. */
interface ReadAnnotation {
  id: string;
  subtype: string;
  rect: number[];
  annotationFlags: number;
  unsafeUrl?: string;
  url?: string;
  dest?: unknown;
  contentsObj?: { str: string };
  quadPoints?: ArrayLike<number> | null;
  color?: ArrayLike<number> | null;
  /** `width` as drawn within its rectangle, `rawWidth` as said where it is more than nothing. */
  borderStyle: { width: number; rawWidth: number; style: number };
}

// How far edges and spots may be from where they were asked for, in points: files round them.
const slack = 1;

/**
 * Compares a saved PDF, as pdf.js reads it, with the links that were asked for and with the file that came: every link is
 * there, at its place, and leads where it should; no other is; and pages, text, outline and everything else are as they were.
 * @param pages all pages, as they were asked to be
 * @throws FinishedError `format` where a page of one of them cannot be read
 */
export async function proveSaved(
  came: Uint8Array,
  saved: Uint8Array,
  pages: readonly PdfPage[],
  names: DestinationNames,
  tell: TellPage = () => undefined,
  password = "",
): Promise<LinkProof> {
  const faults: Fault[] = [];
  const fault = (where: string, what: string): void => void faults.push({ where, what });
  if (!came.every((byte, i) => saved[i] === byte))
    fault("The file", "Its beginning is not, byte for byte, the file that came.");
  faults.push(...(await judgeAppended(came, saved, password)));
  const [before, after] = [await opened(came, password), await opened(saved, password)];
  try {
    if (before.numPages !== after.numPages)
      fault("The file", `It has ${after.numPages} pages; ${before.numPages} came.`);
    if (JSON.stringify(await before.getOutline()) !== JSON.stringify(await after.getOutline()))
      fault("The file", "Its outline is not as it was.");
    const rows: ProofRow[] = [];
    const extra: LinkProof["extra"] = [];
    const spots = spotsOf(pages);
    for (const page of pages) {
      if (page.number > after.numPages) break;
      const [was, is] = await Promise.all([readPage(before, page.number), readPage(after, page.number)]);
      const where = titleOfPage(page);
      if (was.text !== is.text) fault(where, "Its text is not as it was.");
      if (was.others !== is.others) fault(where, "What it has besides links is not as it was.");
      const inStructure = page.links.length > 0 ? await inStructureOf(after, page.number) : null;
      const tellFault = (what: string): void => fault(where, what);
      const judging = new PageProof(page, was.links, is.links, inStructure, after, spots, names, tellFault);
      rows.push(...(await judging.rows()));
      extra.push(...judging.extra());
      tell(page.number, pages.length);
    }
    const intact = rows.filter(({ verdict }) => verdict === "intact").length;
    return {
      complete: intact === rows.length && extra.length === 0 && faults.length === 0,
      intact,
      total: rows.length,
      made: { intact: 0, total: 0, rows: [] },
      pages: after.numPages,
      rows,
      extra,
      faults,
      apparatus: pages.reduce((count, { untouched }) => count + untouched.length, 0),
    };
  } catch (error) {
    throw damaged(error);
  } finally {
    await Promise.all([before.loadingTask.destroy(), after.loadingTask.destroy()]);
  }
}

/** What is read of a page. */
interface PageRead {
  links: ReadAnnotation[];
  text: string;
  others: string;
}

async function readPage(document: PDFDocumentProxy, number: number): Promise<PageRead> {
  const page = await document.getPage(number);
  const annotations = (await page.getAnnotations()) as ReadAnnotation[];
  const { items } = await page.getTextContent();
  const text = items.map((item) => ("str" in item ? `${item.str}@${item.transform.join()}` : "")).join("\n");
  // One that is hidden (ISO 32000-1, 12.5.3, flag 2) is nothing that a reader presses.
  const isLink = ({ subtype, annotationFlags }: ReadAnnotation): boolean =>
    subtype === "Link" && (annotationFlags & 2) === 0;
  const links = annotations.filter(isLink);
  page.cleanup();
  const others = annotations.filter((one) => !isLink(one));
  return {
    links,
    text,
    others: JSON.stringify(others.map(({ id, subtype, rect, unsafeUrl }) => [id, subtype, rect, unsafeUrl])),
  };
}

/** The annotations that the structure of a tagged file has on a page; null where the page has no structure. */
async function inStructureOf(
  document: PDFDocumentProxy,
  number: number,
): Promise<ReadonlySet<string> | null> {
  const tree = (await (await document.getPage(number)).getStructTree()) as StructureItem | null;
  return tree && new Set(annotationsIn(tree));
}

/** A node of a page’s structure as pdf.js tells it. */
interface StructureItem {
  type?: string;
  id?: string;
  children?: StructureItem[];
}

function annotationsIn({ type, id = "", children = [] }: StructureItem): string[] {
  return [
    ...(type === "annotation" || type === "object" ? [id.replace(/^pdfjs_internal_id_/, "")] : []),
    ...children.flatMap(annotationsIn),
  ];
}

/** The links of one page: those that were asked for, beside those that are there. */
class PageProof {
  private readonly taken = new Set<ReadAnnotation>();

  constructor(
    private readonly page: PdfPage,
    private readonly before: readonly ReadAnnotation[],
    private readonly after: readonly ReadAnnotation[],
    private readonly inStructure: ReadonlySet<string> | null,
    private readonly document: PDFDocumentProxy,
    private readonly spots: ReadonlyMap<string, Spot>,
    private readonly names: DestinationNames,
    /** Tells of something else that is wrong on the page. */
    private readonly fault: (what: string) => void,
  ) {}

  async rows(): Promise<ProofRow[]> {
    const rows: ProofRow[] = [];
    for (const link of this.page.links) rows.push(await this.row(link));
    return rows;
  }

  extra(): LinkProof["extra"] {
    // One that is no object of its own is known by where it lies.
    const isUntouched = ({ id, rect }: ReadAnnotation): boolean =>
      this.page.untouched.some(
        ({ from, areas }) =>
          idOf(from) === id || (id.startsWith("annot_") && areas && near(rect, boxAround(areas))),
      );
    return this.after
      .filter((one) => !this.taken.has(one) && !isUntouched(one))
      .map((one) => ({
        text: one.contentsObj?.str ?? "",
        destination: addressIn(one) ?? JSON.stringify(one.dest ?? null),
        where: whereOf(this.page.number, one.rect),
      }));
  }

  private async row(link: PdfLink): Promise<ProofRow> {
    const box = boxAround(link.areas);
    const free = this.after.filter((one) => !this.taken.has(one));
    const own = link.from === null ? undefined : free.find(({ id }) => id === idOf(link.from!));
    const found =
      own ??
      (await this.firstOf(
        free.filter(({ rect }) => near(rect, box)),
        (one) => this.leadsRight(link, one),
      )) ??
      free.find(({ rect }) => near(rect, box));
    const row = (verdict: LinkVerdict, note: string | null): ProofRow => ({
      link: this.told(link),
      verdict,
      found: found ? [whereOf(this.page.number, found.rect)] : [],
      note,
    });
    if (!found) return row("missing", "The file has no such link.");
    this.taken.add(found);
    if (!near(found.rect, box)) return row("shifted", "Its area lies elsewhere.");
    if (!hasAreas(found, link.areas)) return row("shifted", "Of its lines not each is covered.");
    if (!(await this.leadsRight(link, found)))
      return row(
        "other-destination",
        `It leads to ${addressIn(found) ?? JSON.stringify(found.dest ?? null)}.`,
      );
    const said = found.contentsObj?.str.trim() || null;
    if (said !== (link.description?.trim() || null))
      return row("other-description", said === null ? "It says nothing." : `It says “${said}”.`);
    const was = link.from === null ? undefined : this.before.find(({ id }) => id === idOf(link.from!));
    // Where nothing is said of it, some readers' programs draw a frame (12.5.2), and others none.
    const isAsItWas = was !== undefined && sameFrame(was, found);
    if (!showsFrame(found, link.frame) && !(isAsItWas && isUnsaid(found)))
      this.fault(`The frame of “${link.words || "a link"}” is another.`);
    if (link.isInStructure && this.inStructure?.has(found.id) === false)
      this.fault(`“${link.words || "A link"}” is not in the structure of the file.`);
    return row("intact", null);
  }

  private async firstOf(
    all: readonly ReadAnnotation[],
    isIt: (one: ReadAnnotation) => Promise<boolean>,
  ): Promise<ReadAnnotation | undefined> {
    for (const one of all) if (await isIt(one)) return one;
    return undefined;
  }

  /** Whether a link leads where it was asked to; one that was not changed, where it led in the file that came. */
  private async leadsRight(link: PdfLink, found: ReadAnnotation): Promise<boolean> {
    const outside = kindOf(link.destination).outside(link.destination);
    const address = addressIn(found);
    const was = link.from === null ? undefined : this.before.find(({ id }) => id === idOf(link.from!));
    if (outside.kind === "place") {
      if (address !== null) return false;
      const spot = this.spots.get(outside.target);
      const lands = await this.landing(found.dest);
      // What led nowhere in the file that came still does, unless it was mended.
      if (!spot) return lands === null || JSON.stringify(was?.dest) === JSON.stringify(found.dest);
      return (
        lands !== null &&
        lands.page === spot.page &&
        (spot.y === null || (lands.y !== null && Math.abs(lands.y - spot.y) <= slack))
      );
    }
    const wanted =
      outside.kind === "address"
        ? outside.address
        : outside.kind === "file"
          ? (this.names.files.get(outside.file) ?? outside.file) + behindPath(outside.at)
          : outside.path;
    if (address === null) return false;
    return sameAddress(named(address), named(wanted));
  }

  private async destinationOf(name: string): Promise<unknown> {
    try {
      return await this.document.getDestination(name);
    } catch {
      // Names in a tree that does not say where in it they are (7.9.6) are found by reading all of it.
      return (await this.document.getDestinations())[name];
    }
  }

  private async landing(dest: unknown): Promise<Spot | null> {
    const explicit = (typeof dest === "string" ? await this.destinationOf(dest) : dest) as
      unknown[] | null | undefined;
    if (!Array.isArray(explicit)) return null;
    const [target, how, ...numbers] = explicit as [unknown, { name?: string } | undefined, ...unknown[]];
    try {
      const page =
        typeof target === "number"
          ? target
          : await this.document.getPageIndex(target as { num: number; gen: number });
      const y = numbers[heightAt[how?.name ?? ""] ?? Infinity];
      return { page: page + 1, x: null, y: typeof y === "number" ? y : null };
    } catch {
      // pdf.js throws where a destination names no page.
      return null;
    }
  }

  private told(link: PdfLink): ProofRow["link"] {
    return linkAsAsked(link, {
      chapter: titleOfPage(this.page),
      isArea: link.words === "",
      destination: writeDestination(link.destination),
      name: nameDestination(link.destination, this.names),
      landing: null,
    });
  }
}

/** Which of a destination’s numbers is the height on its page (ISO 32000-1, table 151). */
const heightAt: Readonly<Record<string, number>> = { XYZ: 1, FitH: 0, FitBH: 0, FitR: 3 };

/** Where an annotation leads outward; null where it does not. */
function addressIn({ unsafeUrl, url }: ReadAnnotation): string | null {
  return unsafeUrl === undefined ? (url ?? null) : addressOfBytes(unsafeUrl);
}

/** What pdf.js calls an annotation that is an object of its own. */
function idOf(from: string): string {
  const [object, generation] = from.split(" ");
  return object === "direct" ? from : `${object}R${generation === "0" ? "" : generation}`;
}

/** Whether a link takes each area of several, as its quadrilaterals tell (ISO 32000-1, 12.5.6.5). */
function hasAreas({ quadPoints }: ReadAnnotation, areas: readonly Area[]): boolean {
  if (areas.length < 2) return true;
  const points = Array.from(quadPoints ?? []);
  const boxes = Array.from({ length: points.length / 8 }, (_, i) => {
    const corners = points.slice(i * 8, i * 8 + 8);
    const [xs, ys] = [0, 1].map((from) => corners.filter((_, at) => at % 2 === from)) as [number[], number[]];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  });
  return areas.every((area) => boxes.some((box) => near(box, area)));
}

/** How pdf.js numbers the lines of frames. */
const lineOf: Readonly<Record<number, Frame["line"]>> = { 2: "dashed", 5: "underlined" };

/** Whether a link is framed as asked (12.5.4). */
function showsFrame({ borderStyle, color }: ReadAnnotation, { line, thickness, colour }: Frame): boolean {
  const { width, rawWidth, style } = borderStyle;
  const isBare = width === 0 || color === null;
  if (line === "none" || isBare) return line === "none" && isBare;
  const parts = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16));
  return (
    (lineOf[style] ?? "solid") === line &&
    Math.abs(rawWidth - thickness) < 0.01 &&
    parts.every((part, i) => Math.abs(part - (color?.[i] ?? 0)) <= 2)
  );
}

function sameFrame(one: ReadAnnotation, other: ReadAnnotation): boolean {
  return JSON.stringify([one.borderStyle, one.color]) === JSON.stringify([other.borderStyle, other.color]);
}

/** Whether a file says nothing of how a link is framed, as pdf.js tells it. */
function isUnsaid({ borderStyle: { width, rawWidth, style } }: ReadAnnotation): boolean {
  return width === 0 && rawWidth === 1 && style === 1;
}

function near(rect: readonly number[], box: readonly number[]): boolean {
  return rect.every((edge, i) => Math.abs(edge - box[i]!) <= slack);
}

/** An address in which a place in another file is named in one way (RFC 8118; as pdf.js tells of actions that lead into one). */
function named(address: string): string {
  return address
    .replace(/#nameddest=(.*)$/s, (_, name: string) => `#${percentDecoded(name)}`)
    .replace(/#\[(\d+),.*\]$/, (_, page: string) => `#page=${Number(page) + 1}`);
}
