import type { Root } from "hast";
import { percentDecoded } from "../destination/percent-decoded.ts";
import { allElements } from "./hast-nodes.ts";

/**
 * Says where a link leads within the file that it is in, which it may call by its name (RFC 3986, 4.4), as pages do that were
 * written for several; any other link is as it was.
 * @param name the name of the file
 */
export function withinItself(name: string): (href: string) => string {
  return (href) => {
    const [, path = "", fragment = "#top"] = /^(?:\.\/)?([^#?]+)(#.*)?$/s.exec(href) ?? [];
    return path !== "" && percentDecoded(path) === name ? fragment : href;
  };
}

/** Makes links of a tree that call its own file by its name lead to its places. */
export function linksWithinItself(tree: Root, name: string): void {
  const within = withinItself(name);
  for (const { properties } of allElements(tree))
    if (typeof properties["href"] === "string") properties["href"] = within(properties["href"]);
}
