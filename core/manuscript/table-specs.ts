import type { Node, NodeSpec } from "prosemirror-model";
import * as checks from "./attribute-checks.ts";
import { cellFromDom } from "./from-dom.ts";

const cellAttrs = {
  colspan: { default: 1, validate: checks.checkSpan(1_000) },
  rowspan: { default: 1, validate: checks.checkSpan(65_534) },
  colwidth: { default: null, validate: checks.checkColumnWidths },
  align: { default: null, validate: checks.checkAlign },
};

function cellToDom(node: Node): Record<string, string> {
  const attrs: Record<string, string> = {};
  if (node.attrs["colspan"] !== 1) attrs["colspan"] = String(node.attrs["colspan"]);
  if (node.attrs["rowspan"] !== 1) attrs["rowspan"] = String(node.attrs["rowspan"]);
  if (node.attrs["align"]) attrs["style"] = `text-align: ${node.attrs["align"] as string}`;
  return attrs;
}

/** Tables, as nodes of the schema; their roles are those that `prosemirror-tables` knows. */
export const tableSpecs = {
  table: {
    content: "table_row+",
    group: "block",
    isolating: true,
    tableRole: "table",
    parseDOM: [{ tag: "table" }],
    toDOM: () => ["table", ["tbody", 0]],
  },
  table_row: {
    content: "(table_cell | table_header)*",
    tableRole: "row",
    parseDOM: [{ tag: "tr" }],
    toDOM: () => ["tr", 0],
  },
  table_cell: {
    content: "block+",
    attrs: cellAttrs,
    isolating: true,
    tableRole: "cell",
    parseDOM: [{ tag: "td", getAttrs: (dom) => cellFromDom(dom as HTMLElement) }],
    toDOM: (node) => ["td", cellToDom(node), 0],
  },
  table_header: {
    content: "block+",
    attrs: cellAttrs,
    isolating: true,
    tableRole: "header_cell",
    parseDOM: [{ tag: "th", getAttrs: (dom) => cellFromDom(dom as HTMLElement) }],
    toDOM: (node) => ["th", cellToDom(node), 0],
  },
} satisfies Record<string, NodeSpec>;
