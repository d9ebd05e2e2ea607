import { assertLayout, type PageLayout } from "../manuscript/page-layout.ts";
import type { PrintedAddresses } from "./typeset.ts";

export const exportFormats = ["pdf", "epub", "web", "markdown", "docx"] as const;
export type ExportFormat = (typeof exportFormats)[number];

/** Everything that an author chooses for one export. What a format has no use for is left as it is. */
export interface ExportOptions {
  format: ExportFormat;
  /** PDF: claim PDF/UA-1, and refuse what it does not allow. */
  accessible: boolean;
  /** PDF: how web addresses are written out for print. */
  addresses: PrintedAddresses;
  /** All but the e-book, which has them inside: whether companion files come along. */
  companions: "beside" | "left-out";
  /** Web page: one page, or a folder with a page for each chapter. */
  pages: "one" | "chapters";
  /** E-book: whether the letters are inside it. */
  fonts: boolean;
  /** E-book: whether it says where the pages of the last PDF begin. */
  pageList: boolean;
  /** PDF: how its pages are laid out; null for the layout of the book. */
  layout: PageLayout | null;
}

/** A book's own set of choices, by a name. */
export interface Preset {
  name: string;
  options: ExportOptions;
}

export const usualOptions: Omit<ExportOptions, "format"> = {
  accessible: true,
  addresses: "none",
  companions: "beside",
  pages: "one",
  fonts: false,
  pageList: true,
  layout: null,
};

const mostPresets = 40;
const longestName = 60;

/**
 * Says whether a value read from outside is a set of export options.
 * @throws RangeError with what is wrong
 */
export function assertExportOptions(value: unknown): asserts value is ExportOptions {
  const given = (value ?? {}) as ExportOptions;
  oneOf("format", given.format, exportFormats);
  oneOf("addresses", given.addresses, ["none", "notes", "list"]);
  oneOf("companions", given.companions, ["beside", "left-out"]);
  oneOf("pages", given.pages, ["one", "chapters"]);
  for (const key of ["accessible", "fonts", "pageList"] as const)
    if (typeof given[key] !== "boolean") throw new RangeError(`The option “${key}” is true or false.`);
  if (given.layout !== null) assertLayout(given.layout);
}

/**
 * Says whether a value read from outside is a book's list of presets.
 * @throws RangeError with what is wrong
 */
export function assertPresets(value: unknown): asserts value is Preset[] {
  if (!Array.isArray(value) || value.length > mostPresets)
    throw new RangeError(`A book has a list of at most ${mostPresets} presets.`);
  const names = new Set<string>();
  for (const { name, options } of value as Preset[]) {
    if (typeof name !== "string" || name.trim() === "" || name.length > longestName)
      throw new RangeError(`A preset has a name of at most ${longestName} letters.`);
    if (names.has(name)) throw new RangeError(`Two presets are called “${name}”. Give one another name.`);
    names.add(name);
    assertExportOptions(options);
  }
}

function oneOf(name: string, given: unknown, allowed: readonly string[]): void {
  if (!allowed.includes(given as string))
    throw new RangeError(`The option “${name}” is one of ${allowed.join(", ")}.`);
}
