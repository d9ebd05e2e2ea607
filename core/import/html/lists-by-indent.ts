import type { Element, ElementContent, Root } from "hast";

/** Points that one of each unit is, on a page at its usual size (CSS Values 4, 6). */
const points: Readonly<Record<string, number>> = {
  pt: 1,
  px: 0.75,
  em: 12,
  rem: 12,
  in: 72,
  cm: 28.35,
  mm: 2.835,
};

/** A list that is open, with how far in its items stand. */
interface Open {
  list: Element;
  indent: number;
}

/**
 * Puts lists into the items that they belong to: text programs save what lies in a list as a list behind it, whose items
 * stand further in.
 */
export function listsByIndent(parent: Root | Element): void {
  const made: ElementContent[] = [];
  let open: Open[] = [];
  let between: ElementContent[] = [];
  for (const child of parent.children as ElementContent[]) {
    if (child.type === "element") listsByIndent(child);
    if (child.type === "text" && child.value.trim() === "") {
      between.push(child);
      continue;
    }
    const list = child.type === "element" && /^[uo]l$/.test(child.tagName) ? child : null;
    if (list) open = place(list, open, made, between);
    else {
      open = [];
      made.push(...between, child);
    }
    between = [];
  }
  parent.children = [...made, ...between];
}

/** Puts a list where it belongs. @returns the lists that are open behind it */
function place(
  list: Element,
  open: readonly Open[],
  made: ElementContent[],
  between: ElementContent[],
): Open[] {
  const indent = indentOf(list);
  const around = open.filter((one) => one.indent < indent);
  const same = open.find((one) => one.indent === indent && one !== open.at(-1));
  if (same?.list.tagName === list.tagName) {
    same.list.children.push(...list.children);
    return [...around, same];
  }
  const item = around.at(-1)?.list.children.findLast(isItem);
  if (item) item.children.push(list);
  else made.push(...between, list);
  return [...around, { list, indent }];
}

function indentOf(list: Element): number {
  const style = String(list.children.find(isItem)?.properties["style"] ?? "");
  const [, length = "0", unit = "pt"] = /(?:^|;)\s*margin-left\s*:\s*([\d.]+)([a-z]+)/i.exec(style) ?? [];
  return Number(length) * (points[unit.toLowerCase()] ?? 0);
}

const isItem = (node: ElementContent): node is Element => node.type === "element" && node.tagName === "li";
