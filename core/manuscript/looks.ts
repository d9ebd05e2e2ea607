import type { DestinationKind } from "../destination/destination.ts";

export type UnderlineStyle = "none" | "solid" | "dotted" | "dashed";

/** What a web page does with a link that is pointed at. */
export type HoverStyle = "same" | "underlined" | "shaded";

/** How the links of one kind look in the book. */
export interface LinkLook {
  /** As #rrggbb. */
  colour: string;
  underline: UnderlineStyle;
  bold: boolean;
  hover: HoverStyle;
}

/** The look of each kind of link. */
export type LinkLooks = Record<DestinationKind, LinkLook>;

export const lookedKinds: readonly DestinationKind[] = ["web", "email", "file", "place"];
const underlines: readonly unknown[] = ["none", "solid", "dotted", "dashed"];
const hovers: readonly unknown[] = ["same", "underlined", "shaded"];

/** The colour of a book's text and of its paper, which links are seen beside. */
export const textColour = "#1c1a17";
export const paperColour = "#ffffff";

// Common practice: a link is blue and underlined unless the author decides otherwise.
const usual: LinkLook = { colour: "#1d4f8f", underline: "solid", bold: false, hover: "shaded" };

export const usualLooks: LinkLooks = { web: usual, email: usual, file: usual, place: usual };

/**
 * Says whether a value read from outside is a look for each kind of link.
 * @throws RangeError with what is wrong
 */
export function assertLooks(value: unknown): asserts value is LinkLooks {
  for (const kind of lookedKinds) {
    const look = ((value ?? {}) as Record<string, Record<string, unknown> | undefined>)[kind] ?? {};
    if (typeof look["colour"] !== "string" || !/^#[0-9a-f]{6}$/i.test(look["colour"]))
      throw new RangeError("A link's colour is written as #rrggbb.");
    if (!underlines.includes(look["underline"]))
      throw new RangeError("A link's underline is none, solid, dotted or dashed.");
    if (typeof look["bold"] !== "boolean") throw new RangeError("A link is bold or not.");
    if (!hovers.includes(look["hover"]))
      throw new RangeError("A link that is pointed at is the same, underlined or shaded.");
  }
}
