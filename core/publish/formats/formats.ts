import type { PageLayout } from "../../manuscript/page-layout.ts";
import { docx } from "./docx/docx.ts";
import { epub } from "./epub/epub.ts";
import type { Format } from "./format.ts";
import { odt } from "./odt/odt.ts";
import { markdown } from "./markdown/markdown.ts";
import { assertOption, defaultsOf, type Chosen, type Option, type Options } from "./option.ts";
import { pdf } from "./pdf/pdf.ts";
import { web } from "./web/web.ts";

/** All formats in which books go out, in the order in which they are offered. */
const table = { pdf, epub, web, markdown, docx, odt };

export type ExportFormat = keyof typeof table;

/** A format and everything that was chosen for it. */
export type ExportOptions = {
  [F in ExportFormat]: { format: F } & Chosen<(typeof table)[F]["options"]>;
}[ExportFormat];

/** Choices as they come from outside: of any format, and not all of them. */
export interface ExportChoices {
  format: ExportFormat;
  companions?: "beside" | "left-out";
  layout?: PageLayout | null;
  [option: string]: unknown;
}

/** The formats, each as every other is used. */
export const formats = table as unknown as Readonly<Record<ExportFormat, Format<Options, ExportOptions>>>;
export const exportFormats = Object.keys(table) as ExportFormat[];

/** A book's own set of choices, by a name. */
export interface Preset {
  name: string;
  options: ExportChoices;
}

const mostPresets = 40;
const longestName = 60;

/** Every option that any format has, by its name. */
export const allOptions: Readonly<Record<string, Option>> = Object.assign(
  {},
  ...Object.values(formats).map(({ options }) => options),
) as Record<string, Option>;

/**
 * The choices for an export, with the default for each that is not there; what its format has no use for is left out.
 * @throws RangeError with what is wrong
 */
export function exportOptions(given: ExportChoices): ExportOptions {
  assertFormat(given.format);
  const { options } = formats[given.format];
  const chosen = Object.keys(options).flatMap((name) =>
    given[name] === undefined ? [] : [[name, given[name]]],
  );
  const whole = { ...defaultsOf(options), ...(Object.fromEntries(chosen) as object) };
  for (const [name, value] of Object.entries(whole)) assertOption(name, options[name]!, value);
  return { format: given.format, ...whole } as ExportOptions;
}

function assertFormat(format: unknown): asserts format is ExportFormat {
  if (!Object.hasOwn(formats, String(format)))
    throw new RangeError(`A book is exported as ${exportFormats.join(", ")}.`);
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
    exportOptions(options ?? {});
  }
}
