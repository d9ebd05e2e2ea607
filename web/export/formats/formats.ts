import { defaultsOf } from "@vennet/core/publish/formats/option";
import type { ExportFormat } from "@vennet/core/publish/formats/formats";
import { docx } from "./docx";
import { epub } from "./epub";
import type { Choices, FormatOnScreen } from "./format-on-screen";
import { markdown } from "./markdown";
import { odt } from "./odt";
import { pdf } from "./pdf";
import { web } from "./web";

/** How each format is shown, in the order in which they are offered. */
const table: { [F in ExportFormat]: unknown } = { pdf, epub, web, markdown, docx, odt };

/** The formats, each as every other is shown. */
export const formats = table as Readonly<Record<ExportFormat, FormatOnScreen>>;
export const formatNames = Object.keys(table) as ExportFormat[];

/** What is chosen before anything was: the defaults of all formats. */
export function defaultChoices(format: ExportFormat): Choices {
  return Object.assign({}, ...Object.values(formats).map(({ options }) => defaultsOf(options)), {
    format,
  }) as Choices;
}

/** What was chosen for an export, in a few words; what is usual is not said. */
export function choiceWords(choices: Choices): string {
  const { options, words } = formats[choices.format];
  return words({ ...defaultsOf(options), ...choices } as never)
    .filter(Boolean)
    .join(", ");
}
