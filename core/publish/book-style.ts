import { picturesIn, type Book } from "../manuscript/book.ts";
import { kindNames } from "../destination/kinds/kinds.ts";
import { linkUses } from "../manuscript/links.ts";
import { underlineCss, type HoverStyle, type LinkLooks, type OwnLook } from "../manuscript/looks.ts";

const base = `body { font-family: serif; line-height: 1.5; margin: 0 4%; overflow-wrap: break-word; }
h1, h2, h3, h4, h5 { line-height: 1.25; text-align: start; hyphens: none; }
h1 { margin: 2em 0 1em; }
img, svg { max-width: 100%; height: auto; }
pre { white-space: pre-wrap; }
pre, code { font-family: monospace, monospace; font-size: 0.85em; }
pre code { font-size: inherit; }
table { border-collapse: collapse; margin: 1em 0; }
th, td { border: 1px solid; padding: 0.3em 0.5em; text-align: start; vertical-align: top; }
td.left, th.left { text-align: left; }
td.center, th.center { text-align: center; }
td.right, th.right { text-align: right; }
.small-caps { font-variant-caps: small-caps; }
p.center { text-align: center; }
p.end { text-align: end; }
blockquote { margin: 1em 1.5em; }
.verse { margin: 1em 2em; }
.verse p { text-align: start; hyphens: none; }
.epigraph { margin: 1em 0 1em 35%; font-style: italic; }
.notice { margin: 1em 0; border: 1px solid; padding: 0 1em; }
.tasks { list-style: none; padding-inline-start: 1em; }
dt { font-weight: bold; margin-top: 0.6em; }
dd { margin-inline-start: 1.5em; }
.credit { font-size: 0.8em; }
.page-break { break-after: page; }
figure { margin: 1em 0; }
figcaption, .caption { font-size: 0.9em; }
figcaption .number, .caption .number { font-weight: bold; }
.signposts ul { list-style: none; padding: 0; }
.signposts ul ul { padding-inline-start: 1.5em; }
.signposts-heading { font-weight: bold; }
.return { font-size: 0.9em; }
.gap { font-weight: bold; }
.notes { margin-top: 2em; border-top: 1px solid; font-size: 0.9em; }
.note-number, .note-number + p { display: inline; }
aside[role="doc-footnote"] { margin: 0.6em 0; }
.cover { display: block; margin: 0 auto; max-height: 95vh; }
.part h1 { margin-top: 35%; text-align: center; }
.title-page { text-align: center; margin-top: 20%; }
`;

const hovers: Record<HoverStyle, string> = {
  same: "",
  underlined: "text-decoration: underline",
  shaded: "background: #e3ebf5",
};

/** The style sheet of a book's pages: e-books carry no inline styles, so every choice is a rule. */
export function bookStyle(book: Book): string {
  return base + lookRules(book.looks) + ownLookRules(book) + widthRules(book);
}

/** What web pages do with a link that is pointed at. */
export function hoverRules(looks: LinkLooks): string {
  return kindNames
    .filter((kind) => hovers[looks[kind].hover] !== "")
    .map((kind) => `a.${kind}:hover { ${hovers[looks[kind].hover]}; }\n`)
    .join("");
}

function lookRules(looks: LinkLooks): string {
  const rules = kindNames.map((kind) => lookRule(kind, looks[kind]));
  return `${rules.join("")}a.as-text { color: inherit; text-decoration: none; }\n`;
}

function lookRule(name: string, { colour, underline, bold }: OwnLook): string {
  return `a.${name} { color: ${colour}; text-decoration: ${underlineCss(underline)}; font-weight: ${bold ? "bold" : "inherit"}; }\n`;
}

/** The class of links that have the same look of their own. */
export function lookClass({ colour, underline, bold }: OwnLook): string {
  return `own-${colour.slice(1).toLowerCase()}-${underline}${bold ? "-bold" : ""}`;
}

/** A class for each look that single links of the book have. */
function ownLookRules({ chapters }: Book): string {
  const looks = new Map(
    chapters.flatMap(({ doc }) =>
      linkUses(doc).flatMap(({ look }) => (look === null ? [] : [[lookClass(look), look] as const])),
    ),
  );
  return [...looks]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, look]) => lookRule(name, look))
    .join("");
}

/** A class for each width that the book's pictures are shown at. */
function widthRules(book: Book): string {
  const widths = new Set(
    picturesIn(book).flatMap(({ width }) => (width === null ? [] : [Math.round(width)])),
  );
  return [...widths]
    .sort((a, b) => a - b)
    .map((width) => `.width-${width} { width: ${width}%; }\n`)
    .join("");
}
