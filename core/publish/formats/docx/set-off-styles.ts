import { BorderStyle, type IParagraphOptions, type IParagraphStyleOptions } from "docx";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { indent } from "./numberings.ts";

const side = { style: BorderStyle.SINGLE, size: 4, space: 4 };
const boxed = { top: side, bottom: side, left: side, right: side };

/** The styles by which paragraphs are set off and listings shown. */
export const setOffStyles: IParagraphStyleOptions[] = [
  { id: "Quote", name: "Quote", basedOn: "Normal" },
  { id: "Notice", name: "Notice Line", basedOn: "Normal", paragraph: { border: boxed } },
  { id: "DefinitionTerm", name: "Definition Term", basedOn: "Normal", run: { bold: true } },
  { id: "HTMLPreformatted", name: "HTML Preformatted", basedOn: "Normal" },
];

/** How the paragraphs look that are set off. */
export const setOffParagraphs: Readonly<Record<SetOff, IParagraphOptions>> = {
  quotation: { style: "Quote", indent: { left: indent * 2, right: indent * 2 } },
  verse: { style: "Quote", indent: { left: indent * 3 } },
  epigraph: { style: "Quote", indent: { left: indent * 8 } },
  notice: { style: "Notice" },
};
