import { PDFArray, PDFNumber, type PDFDict } from "@cantoo/pdf-lib";
import { noFrame, type Frame, type FrameLine } from "../../manuscript/hotspot.ts";
import { dictionaryIn, entry, nameIn, numbersIn } from "./open-pdf.ts";

const lines: Readonly<Record<string, FrameLine>> = { S: "solid", D: "dashed", U: "underlined" };

/**
 * How an annotation is framed (ISO 32000-1, 12.5.4): its border style, else its border, else a solid line of one point.
 */
export function frameOf(annotation: PDFDict): Frame {
  const style = dictionaryIn(annotation, "BS");
  const border = entry(annotation, "Border");
  const old = border instanceof PDFArray ? border : null;
  const width = style ? entry(style, "W") : old?.lookup(2);
  const thickness = width instanceof PDFNumber ? width.asNumber() : 1;
  if (thickness <= 0) return noFrame;
  const dashes = old && old.size() > 3 ? numbersIn(old.lookup(3)) : null;
  const line = style
    ? (lines[nameIn(style, "S") ?? "S"] ?? "solid")
    : dashes?.some((one) => one > 0)
      ? "dashed"
      : "solid";
  const colour = colourOf(numbersIn(entry(annotation, "C")));
  // An empty array is no colour, and nothing is drawn.
  return colour === null ? noFrame : { line, thickness: Math.min(thickness, 100), colour };
}

/** A colour of one, three or four numbers (12.5.2, `C`); black where there is none, null where it is none. */
function colourOf(numbers: number[] | null): string | null {
  if (numbers === null) return "#000000";
  const hex = (parts: number[]): string =>
    `#${parts
      .map((one) =>
        Math.round(Math.min(Math.max(one, 0), 1) * 255)
          .toString(16)
          .padStart(2, "0"),
      )
      .join("")}`;
  switch (numbers.length) {
    case 1:
      return hex([numbers[0]!, numbers[0]!, numbers[0]!]);
    case 3:
      return hex(numbers);
    case 4: {
      const [c, m, y, k] = numbers as [number, number, number, number];
      return hex([c, m, y].map((one) => 1 - Math.min(1, one + k)));
    }
    default:
      return null;
  }
}

/** The entries that say how an annotation is framed. */
export function frameEntries({ line, thickness, colour }: Frame): Record<string, unknown> {
  if (line === "none") return { Border: [0, 0, 0], BS: { W: 0 } };
  const style = { solid: "S", dashed: "D", underlined: "U" }[line];
  const rgb = [1, 3, 5].map((at) => Math.round((parseInt(colour.slice(at, at + 2), 16) / 255) * 1000) / 1000);
  return {
    Border: [0, 0, thickness],
    BS: { W: thickness, S: style, ...(line === "dashed" ? { D: [3, 2] } : {}) },
    C: rgb,
  };
}
