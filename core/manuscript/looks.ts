import { kindNames, type DestinationKind } from "../destination/kinds/kinds.ts";

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

/** The look of one link, in place of that of its kind; pointed at, it does as its kind does. */
export type OwnLook = Pick<LinkLook, "colour" | "underline" | "bold">;

/** The look of each kind of link. */
export type LinkLooks = Record<DestinationKind, LinkLook>;

const underlines: readonly unknown[] = ["none", "solid", "dotted", "dashed"];
const hovers: readonly unknown[] = ["same", "underlined", "shaded"];

/** The colour of a book's text and of its paper, which links are seen beside. */
export const textColour = "#1c1a17";
export const paperColour = "#ffffff";

// Common practice: a link is blue and underlined unless the author decides otherwise.
const defaultLook: LinkLook = { colour: "#1d4f8f", underline: "solid", bold: false, hover: "shaded" };

export const defaultLooks = Object.fromEntries(kindNames.map((kind) => [kind, defaultLook])) as LinkLooks;

/** A book's looks, with the default one for each kind that came after they were chosen. */
export function completeLooks(chosen: Partial<LinkLooks> | null): LinkLooks {
  return { ...defaultLooks, ...chosen };
}

/**
 * Says whether a value read from outside is looks for kinds of links; a kind that is left out gets the default one.
 * @throws RangeError with what is wrong
 */
export function assertLooks(value: unknown): asserts value is Partial<LinkLooks> {
  if (typeof value !== "object" || value === null || Object.keys(value).length === 0)
    throw new RangeError("Looks are given by the kinds of links.");
  for (const [kind, given] of Object.entries(value)) {
    if (!kindNames.includes(kind as DestinationKind))
      throw new RangeError(`No links are of the kind “${kind}”.`);
    assertOwnLook(given);
    if (!hovers.includes((given as { hover?: unknown }).hover))
      throw new RangeError("A link that is pointed at is the same, underlined or shaded.");
  }
}

/** An underline as CSS writes it (`text-decoration`). */
export function underlineCss(underline: UnderlineStyle): string {
  return underline === "none" ? "none" : `underline ${underline}`;
}

/** A look for the page on which it is written: what its style sheet reads of it. */
export function lookVariables({ colour, underline, bold }: OwnLook): string {
  return `--link-colour: ${colour}; --link-line: ${underlineCss(underline)}; --link-weight: ${bold ? "700" : "inherit"};`;
}

/** Whether two links look the same by themselves. */
export function sameLook(one: OwnLook | null, other: OwnLook | null): boolean {
  if (one === null || other === null) return one === other;
  return one.colour === other.colour && one.underline === other.underline && one.bold === other.bold;
}

/**
 * Says whether a value read from outside is the look of one link.
 * @throws RangeError with what is wrong
 */
export function assertOwnLook(value: unknown): asserts value is OwnLook {
  const look = (value ?? {}) as Record<string, unknown>;
  if (typeof look["colour"] !== "string" || !/^#[0-9a-f]{6}$/i.test(look["colour"]))
    throw new RangeError("A link's colour is written as #rrggbb.");
  if (!underlines.includes(look["underline"]))
    throw new RangeError("A link's underline is none, solid, dotted or dashed.");
  if (typeof look["bold"] !== "boolean") throw new RangeError("A link is bold or not.");
}
