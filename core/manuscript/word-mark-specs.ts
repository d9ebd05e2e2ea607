import type { MarkSpec } from "prosemirror-model";

/** The ways in which words can be shown, as marks of the schema: from elements, and from styles of what is pasted. */
export const wordMarkSpecs = {
  emphasis: {
    parseDOM: [{ tag: "i" }, { tag: "em" }, { style: "font-style=italic" }],
    toDOM: () => ["em", 0],
  },
  strong: {
    parseDOM: [
      { tag: "strong" },
      // Some programs wrap all that they copy in one of these, which they say is not bold.
      { tag: "b", getAttrs: (dom) => (dom as HTMLElement).style.fontWeight !== "normal" && null },
      {
        style: "font-weight",
        getAttrs: (weight) => /^(bold(er)?|[6-9]\d\d)$/.test(String(weight)) && null,
      },
    ],
    toDOM: () => ["strong", 0],
  },
  code: {
    parseDOM: [{ tag: "code" }],
    toDOM: () => ["code", 0],
  },
  superscript: {
    excludes: "superscript subscript",
    parseDOM: [{ tag: "sup" }, { style: "vertical-align=super" }],
    toDOM: () => ["sup", 0],
  },
  subscript: {
    excludes: "superscript subscript",
    parseDOM: [{ tag: "sub" }, { style: "vertical-align=sub" }],
    toDOM: () => ["sub", 0],
  },
  strike: {
    parseDOM: [{ tag: "s" }, { tag: "del" }, { tag: "strike" }, { style: "text-decoration=line-through" }],
    toDOM: () => ["s", 0],
  },
  underline: {
    parseDOM: [{ tag: "u" }, { tag: "ins" }],
    toDOM: () => ["u", 0],
  },
  small_caps: {
    parseDOM: [
      { tag: "span.small-caps" },
      { style: "font-variant=small-caps" },
      { style: "font-variant-caps=small-caps" },
    ],
    toDOM: () => ["span", { class: "small-caps" }, 0],
  },
} satisfies Record<string, MarkSpec>;
