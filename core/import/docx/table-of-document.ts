import type { Element, ElementContent } from "hast";
import { element } from "../hast-nodes.ts";
import { childOf, elements, isOn, valueOf, type XmlElement } from "../xml-tree.ts";

/** A table (ECMA-376, 17.4) with its merged cells, and its repeated rows as its head. */
export function tableOf(
  table: XmlElement,
  contentOf: (cell: XmlElement) => ElementContent[],
  paragraph: number,
): Element {
  /** The cell that reaches down in each column. */
  const above = new Map<number, Element>();
  const rows = parts(table, "tr").map((row) => {
    const isHead = isOn(childOf(row, "trPr"), "tblHeader") ?? false;
    const before = Number(valueOf(childOf(row, "trPr"), "gridBefore") ?? 0) || 0;
    let column = before;
    const cells = parts(row, "tc").flatMap((cell): Element[] => {
      const properties = childOf(cell, "tcPr");
      const colSpan = Math.max(1, Number(valueOf(properties, "gridSpan") ?? 1) || 1);
      const at = column;
      column += colSpan;
      const merge = childOf(properties, "vMerge");
      const over = merge && merge.attributes["val"] !== "restart" ? above.get(at) : undefined;
      const content = contentOf(cell);
      // All that is aligned in a cell is so by the cell.
      if (alignOf(cell) !== null)
        for (const one of content) if (one.type === "element") delete one.properties["align"];
      if (over) {
        over.properties["rowSpan"] = Number(over.properties["rowSpan"] ?? 1) + 1;
        over.children.push(...content);
        return [];
      }
      const align = alignOf(cell);
      const shown = { ...(colSpan > 1 ? { colSpan } : {}), ...(align === null ? {} : { align }) };
      const made = element(isHead ? "th" : "td", shown, content, paragraph);
      if (merge) above.set(at, made);
      else above.delete(at);
      return [made];
    });
    // Columns that a row leaves out before its first cell are empty ones.
    if (before > 0) cells.unshift(element("td", before > 1 ? { colSpan: before } : {}, [], paragraph));
    return element("tr", {}, cells, paragraph);
  });
  return element("table", {}, rows, paragraph);
}

/** How all paragraphs of a cell are aligned (ECMA-376, 17.18.44); null where it is as usual, or not all are alike. */
function alignOf(cell: XmlElement): "left" | "center" | "right" | null {
  const sides = { left: "left", start: "left", center: "center", right: "right", end: "right" } as const;
  const all = new Set(
    parts(cell, "p").map((one) => sides[valueOf(childOf(one, "pPr"), "jc") as "left"] ?? null),
  );
  return all.size === 1 ? [...all][0]! : null;
}

/** The rows or cells of something, out of what only wraps them. */
function parts(parent: XmlElement, name: string): XmlElement[] {
  return elements(parent).flatMap((child) =>
    child.name === name
      ? [child]
      : ["sdt", "sdtContent", "ins", "customXml"].includes(child.name)
        ? parts(child, name)
        : [],
  );
}
