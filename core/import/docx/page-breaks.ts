import type { ElementContent } from "hast";

/** The content of a paragraph, parted where the page breaks in it (ECMA-376-1, 17.3.3.1). */
export function partedByPages(content: readonly ElementContent[]): ElementContent[][] {
  const parts: ElementContent[][] = [[]];
  for (const one of content)
    if (one.type === "element" && one.properties["dataPart"] === "page-break") parts.push([]);
    else parts.at(-1)!.push(one);
  return parts;
}
