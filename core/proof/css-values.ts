import type { AtRule, Declaration } from "postcss";
import { contrastRatio } from "../checks/contrast.ts";

/** Whether what a property says leaves a link where it is, to be seen and pressed. */
export type Leaves = (value: string, declaration: Declaration) => boolean;

export const anything: Leaves = () => true;

/** One of some words, or what those around it have. */
export function oneOf(words: string): Leaves {
  const all = new Set([...words.split(" "), "inherit"]);
  return (value) => all.has(value);
}

/** Lengths within limits, in pixels, or one of some words. */
export function between(least: number, most: number, words = ""): Leaves {
  const isWord = oneOf(words);
  return (value, declaration) =>
    value.split(/\s+/).every((part) => {
      const length = lengthOf(part);
      return (length >= least && length <= most) || isWord(part, declaration);
    });
}

/** A share is one of a column of text. */
const pixels: Record<string, number> = {
  px: 1,
  pt: 4 / 3,
  em: 16,
  rem: 16,
  ex: 8,
  ch: 8,
  "%": 6,
  vh: 8,
  vw: 12,
};

/** How far a length goes, in pixels of a page of text; NaN where it is none that is written out. */
function lengthOf(value: string): number {
  const [, number, unit = ""] = /^(-?(?:\d+\.?\d*|\.\d+))([a-z]+|%)?$/.exec(value) ?? [];
  if (number === undefined) return NaN;
  return Number(number) === 0 ? 0 : Number(number) * (pixels[unit] ?? NaN);
}

/** The lengths of a border among its colour and kind. */
export const isThin: Leaves = (value) =>
  value
    .split(/\s+/)
    .map(lengthOf)
    .every((length) => Number.isNaN(length) || (length >= 0 && length <= 8));

/** A share of letters' size is one of those around them. */
export const isReadable: Leaves = (value) => {
  if (/^(inherit|smaller|larger|(x{1,3}-)?(small|large)|medium)$/.test(value)) return true;
  const size = value.endsWith("%") ? parseFloat(value) * 0.16 : lengthOf(value);
  return size >= 6 && size <= 100;
};

const leastOfLine = 0.8;

export const isLine: Leaves = (value) =>
  /^(normal|inherit)$/.test(value) || (Number(value) || lengthOf(value) / 16) >= leastOfLine;

const leastSeen = 0.3;

export const isOpaque: Leaves = (value) =>
  /^[\d.]+%?$/.test(value) && parseFloat(value) >= (value.endsWith("%") ? 100 : 1) * leastSeen;

/** What is less apart from its paper nobody sees. */
const leastApart = 1.1;
const white = "#ffffff";

/** Whether letters of a colour are seen on paper of another, both as #rrggbb. */
export function isSeenOn(colour: string, paper = white): boolean {
  return contrastRatio(colour, paper) >= leastApart;
}

/** A paper for letters whose colour is said elsewhere. */
const paperApart = 3;

export const isInk: Leaves = (value, declaration) => {
  if (/^(inherit|currentcolor|black|canvastext)$/.test(value)) return true;
  const colour = hexOf(value);
  const paper =
    besideOf(declaration, /^background(-color)?$/) ?? (isAtNight(declaration) ? "#000000" : white);
  return colour !== null && isSeenOn(colour, paper);
};

export const isPaper: Leaves = (value, declaration) => {
  if (/^(none|transparent|inherit|canvas)$/.test(value)) return true;
  const colour = hexOf(value);
  if (colour === null) return false;
  const ink = besideOf(declaration, /^color$/);
  if (ink !== null) return isSeenOn(colour, ink);
  return contrastRatio(colour, isAtNight(declaration) ? white : "#000000") >= paperApart;
};

/** Whether it is for screens with light letters on dark paper. */
function isAtNight({ parent }: Declaration): boolean {
  const around = parent?.parent;
  return around?.type === "atrule" && /prefers-color-scheme:\s*dark/.test((around as AtRule).params);
}

/** Another colour of the same rule, on or under this one. */
function besideOf({ parent }: Declaration, property: RegExp): string | null {
  const beside = parent?.nodes?.find(
    (node): node is Declaration => node.type === "decl" && property.test(node.prop.toLowerCase()),
  );
  return beside ? hexOf(beside.value.trim().toLowerCase()) : null;
}

/** A colour as #rrggbb; null where it is written in another way. */
function hexOf(value: string): string | null {
  const short = /^#([\da-f])([\da-f])([\da-f])$/;
  const long = value.replace(short, "#$1$1$2$2$3$3");
  return /^#[\da-f]{6}$/.test(long) ? long : null;
}
