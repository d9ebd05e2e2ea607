import {
  anything,
  between,
  isInk,
  isLine,
  isOpaque,
  isPaper,
  isReadable,
  isThin,
  oneOf,
  type Leaves,
} from "./css-values.ts";

/** Properties by what a style does to a link where they say other than they may. */
const groups: Record<string, Record<string, Leaves>> = {
  "is not shown": {
    display: oneOf(
      "block inline inline-block list-item flow-root flex inline-flex grid inline-grid table inline-table table-row " +
        "table-cell table-caption table-row-group table-header-group table-footer-group table-column table-column-group",
    ),
    visibility: oneOf("visible"),
    "content-visibility": oneOf("visible auto"),
  },
  "takes no press": { "pointer-events": oneOf("auto all visible painted") },
  "is hardly seen": { opacity: isOpaque },
  "is not seen": { color: isInk, background: isPaper, "background-color": isPaper },
  "lies over other things, or beside them": { position: oneOf("static") },
  "is cut": {
    "clip-path": oneOf("none"),
    clip: oneOf("auto"),
    mask: oneOf("none"),
    overflow: oneOf("visible auto"),
  },
  "is moved": {
    transform: oneOf("none initial unset"),
    scale: oneOf("none 1"),
    rotate: oneOf("none"),
    translate: oneOf("none 0"),
    float: oneOf("none left right inline-start inline-end"),
    "text-indent": between(0, 200),
    "vertical-align": between(-16, 16, "baseline sub super top text-top middle bottom text-bottom"),
    "letter-spacing": between(-1, 16, "normal"),
    "word-spacing": between(-1, 16, "normal"),
    gap: between(0, 200),
    ...ofSides("margin", between(0, 400, "auto")),
    ...ofSides("padding", between(0, 200)),
  },
  "has no size": {
    "font-size": isReadable,
    "line-height": isLine,
    width: between(6, Infinity, "auto"),
    height: between(6, Infinity, "auto"),
    "max-width": between(6, Infinity, "none"),
    "max-height": between(6, Infinity, "none"),
    ...ofSides("border", isThin),
    "border-spacing": isThin,
  },
};

/** Properties that say how letters, lines and tables look, and can do nothing else. */
const looks =
  "font-family font-style font-weight font-stretch font-variant font-variant-caps font-kerning src unicode-range " +
  "text-align text-decoration text-decoration-line text-decoration-style text-decoration-thickness text-underline-offset " +
  "text-transform list-style list-style-type list-style-position hyphens overflow-wrap word-break line-break white-space " +
  "tab-size quotes clear caption-side table-layout border-collapse break-before break-after break-inside orphans widows " +
  "flex-wrap flex-direction justify-content align-items color-scheme";

/** What a style is known to leave as it is, and what it does else. */
export interface StyleProperty {
  leaves: Leaves;
  why: string;
}

/** The properties of which it is known what they may say where a link is to be seen and pressed (CSS Snapshot 2023). */
export const styleProperties: ReadonlyMap<string, StyleProperty> = new Map([
  ...Object.entries(groups).flatMap(([why, properties]) =>
    Object.entries(properties).map(([name, leaves]): [string, StyleProperty] => [name, { leaves, why }]),
  ),
  ...looks.split(" ").map((name): [string, StyleProperty] => [name, { leaves: anything, why: "" }]),
]);

/** A property by itself and for each of its sides (CSS Logical Properties 1). */
function ofSides(property: string, leaves: Leaves): Record<string, Leaves> {
  const sides = "top right bottom left block block-start block-end inline inline-start inline-end".split(" ");
  return Object.fromEntries(
    [property, ...sides.map((side) => `${property}-${side}`)].map((one) => [one, leaves]),
  );
}
