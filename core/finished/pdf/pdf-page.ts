import { assertDestination } from "../../destination/destination.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import type { Frame } from "../../manuscript/hotspot.ts";
import { FinishedError } from "../errors.ts";

/** A part of a page, in points of its own coordinates: before it is turned or cropped (ISO 32000-1, 8.3.2.3). */
export type Area = readonly [left: number, low: number, right: number, high: number];

/** A link of a page of a PDF. */
export interface PdfLink {
  id: string;
  /** The annotation that it was in the file that came: its object, or its place among those of the page; null for a new one. */
  from: string | null;
  /** The words beneath it; empty where it lies on a picture or on nothing. */
  words: string;
  /** One for each line that it runs over. */
  areas: Area[];
  destination: Destination;
  description: string | null;
  /** Its thickness is in points. */
  frame: Frame;
  /** Whether the structure of a tagged file has it (ISO 32000-1, 14.7.4.3); so it is in one that is not tagged. */
  isInStructure: boolean;
}

/** A landing place on a page, besides its top. */
export interface PdfPlace {
  id: string;
  /** An entry of the outline, a destination that the file names, or a spot. */
  of: "outline" | "name" | "spot";
  /** How deep an entry of the outline lies, from 1; null for all else. */
  level: number | null;
  name: string;
  /** In points of the page's own coordinates; null where the file says only that it is this page. */
  x: number | null;
  y: number | null;
}

/** A link of the file that stays as it is, with the reason. */
export interface UntouchedLink {
  from: string;
  words: string;
  /** Null where it has none. */
  areas: Area[] | null;
  why: string;
  /** Whether it leads no reader anywhere. */
  isDead: boolean;
}

/** The links and places of one page of a PDF, as they are to be. */
export interface PdfPage {
  type: "pdf-page";
  /** From 1. */
  number: number;
  /** What the file calls it (12.4.2). */
  label: string;
  /** What of it is shown, in points. */
  box: Area;
  links: PdfLink[];
  places: PdfPlace[];
  untouched: UntouchedLink[];
  /** Whether nothing is painted on it. */
  isBlank: boolean;
}

/** The id of the place that is the top of a page. */
export function topOfPage(number: number): string {
  return `page-${number}`;
}

/** The id of a spot of a page. */
export function spotId(number: number, x: number, y: number): string {
  return `spot-${number}-${Math.round(x)}-${Math.round(y)}`;
}

const mostOfAPage = 5_000;
const longestText = 10_000;
const farthest = 1e6;
const lines: readonly unknown[] = ["none", "solid", "dashed", "underlined"];

/**
 * Says whether a value read from outside is the links and places of a page.
 * @throws FinishedError `page` with what is wrong; DestinationError where a destination is none
 */
export function readPdfPage(value: unknown): PdfPage {
  const page = (value ?? {}) as PdfPage;
  assert(page.type === "pdf-page", "This is no page of a PDF.");
  assert(isWhole(page.number) && page.number >= 1, "A page has a number.");
  assert(isText(page.label) && isArea(page.box), "A page has a label and a size.");
  for (const list of [page.links, page.places, page.untouched])
    assert(
      Array.isArray(list) && list.length <= mostOfAPage,
      "A page has at most 5,000 links and as many places.",
    );
  const ids = new Set<string>();
  for (const link of page.links) {
    assert(isId(link.id) && !ids.has(link.id), "Every link of a page has an id of its own.");
    ids.add(link.id);
    assert(link.from === null || isText(link.from), "A link says which annotation it was.");
    assert(isText(link.words), "The words of a link have at most 10,000 characters.");
    assert(
      link.description === null || isText(link.description),
      "A description has at most 10,000 characters.",
    );
    assert(
      Array.isArray(link.areas) &&
        link.areas.length > 0 &&
        link.areas.length <= 500 &&
        link.areas.every(isArea),
      "A link has at least one area, within the page.",
    );
    const { line, thickness, colour } = link.frame ?? {};
    assert(
      lines.includes(line) &&
        isNumber(thickness) &&
        thickness >= 0 &&
        thickness <= 100 &&
        /^#[0-9a-f]{6}$/i.test(colour),
      "A frame has a line, a thickness and a colour.",
    );
    assertDestination(link.destination);
  }
  for (const { id, of, level, name, x, y } of page.places) {
    assert(
      isId(id) && isText(name) && ["outline", "name", "spot"].includes(of),
      "A place has an id and a name.",
    );
    assert(
      [level, x, y].every((one) => one === null || isNumber(one)),
      "A place lies at a spot.",
    );
  }
  for (const { from, words, areas, why } of page.untouched) {
    assert(isText(from) && isText(words) && isText(why), "What stays says why.");
    assert(
      areas === null || (Array.isArray(areas) && areas.every(isArea)),
      "What stays lies within the page.",
    );
  }
  const { type, number, label, box, links, places, untouched, isBlank } = page;
  return {
    type,
    number,
    label,
    box,
    links: links.map(({ id, from, words, areas, destination, description, frame, isInStructure }) => ({
      id,
      from,
      words,
      areas,
      destination,
      description,
      frame,
      // Of pages that were read before it was asked, nothing is found against.
      isInStructure: isInStructure !== false,
    })),
    places: places.map(({ id, of, level, name, x, y }) => ({ id, of, level, name, x, y })),
    untouched: untouched.map(({ from, words, areas, why, isDead }) => ({
      from,
      words,
      areas,
      why,
      isDead: isDead === true,
    })),
    isBlank: isBlank === true,
  };
}

function assert(isSo: boolean, message: string): asserts isSo {
  if (!isSo) throw new FinishedError("page", message);
}

const isNumber = (value: unknown): value is number =>
  typeof value === "number" && Number.isFinite(value) && Math.abs(value) <= farthest;
const isWhole = (value: unknown): value is number => Number.isInteger(value);
const isText = (value: unknown): value is string => typeof value === "string" && value.length <= longestText;
/** Ids stand in documents too, whose ids are such. */
const isId = (value: unknown): value is string =>
  typeof value === "string" && /^[A-Za-z][\w-]{0,63}$/.test(value);

function isArea(value: unknown): value is Area {
  if (!Array.isArray(value) || value.length !== 4 || !value.every(isNumber)) return false;
  const [left, low, right, high] = value as [number, number, number, number];
  return left <= right && low <= high;
}

/** The box around areas. */
export function boxAround(areas: readonly Area[]): Area {
  return [
    Math.min(...areas.map(([left]) => left)),
    Math.min(...areas.map(([, low]) => low)),
    Math.max(...areas.map(([, , right]) => right)),
    Math.max(...areas.map(([, , , high]) => high)),
  ];
}

/** Whether two links are the same to whoever meets them in the file. */
export function samePdfLink(a: PdfLink, b: PdfLink): boolean {
  const told = ({ areas, destination, description, frame, isInStructure }: PdfLink): string =>
    JSON.stringify([
      areas.map((area) => area.map((one) => Math.round(one * 100))),
      destination,
      description || null,
      frame.line === "none" ? null : [frame.line, frame.thickness, frame.colour.toLowerCase()],
      isInStructure,
    ]);
  return told(a) === told(b);
}

/** Where a place lies: its page, and a spot of it where it says one. */
export interface Spot {
  page: number;
  x: number | null;
  y: number | null;
}

/** Where every place of a file lies, by its id. */
export function spotsOf(pages: readonly PdfPage[]): Map<string, Spot> {
  return new Map(
    pages.flatMap(({ number, places }) => [
      [topOfPage(number), { page: number, x: null, y: null }] as const,
      ...places.map(({ id, x, y }) => [id, { page: number, x, y }] as const),
    ]),
  );
}
