import type { WordMark } from "../../manuscript/word-marks.ts";

/** Elements that only wrap blocks: their content is taken as if they were not there. */
export const wrappers = new Set([
  "div",
  "section",
  "article",
  "main",
  "header",
  "footer",
  "center",
  "details",
  "summary",
  "figure",
  "figcaption",
  "dl",
  "dt",
  "dd",
  "aside",
  "nav",
  "form",
  "fieldset",
  "legend",
  "dialog",
  "search",
  "hgroup",
  "optgroup",
  "option",
  "li",
  "address",
]);
/** Elements that are blocks. */
export const blocks = new Set([
  "p",
  "h1",
  "h2",
  "h3",
  "h4",
  "h5",
  "h6",
  "ul",
  "ol",
  "menu",
  "dir",
  "blockquote",
  "pre",
  "table",
  "hr",
  "note-body",
  ...wrappers,
]);
/** Elements whose content is not for readers. */
export const silent = new Set([
  "script",
  "style",
  "template",
  "head",
  "title",
  "meta",
  "link",
  "source",
  "noscript",
]);
/** Formatting that the manuscript has no mark for; the words stay. */
export const unformatted: Record<string, string> = { mark: "Highlighting" };
/** The marks for elements of words. */
export const markFor: Readonly<Record<string, WordMark>> = {
  strong: "strong",
  b: "strong",
  em: "emphasis",
  i: "emphasis",
  code: "code",
  kbd: "code",
  samp: "code",
  tt: "code",
  var: "emphasis",
  cite: "emphasis",
  dfn: "emphasis",
  sup: "superscript",
  sub: "subscript",
  s: "strike",
  strike: "strike",
  del: "strike",
  u: "underline",
  ins: "underline",
  "small-caps": "small_caps",
};

/** Elements that show something which is not words. */
export const shows = new Set(["iframe", "video", "audio", "object", "embed", "svg", "canvas"]);
