import type { SignpostList } from "../manuscript/attributes.ts";
import { escapeXml } from "./xhtml/escape-xml.ts";

/**
 * What a signpost list follows, as attributes of HTML by which it comes back as one.
 * @param hrefOf the address of a place, seen from where the list stands; null for one that is gone
 */
export function followsOfList(
  { of, scope, section, depth, anchors, heading, returnWords }: SignpostList,
  hrefOf: (id: string) => string | null,
): string {
  const hrefs = (ids: readonly string[]): string => ids.flatMap((id) => hrefOf(id) ?? []).join(" ");
  const said = {
    signposts: of,
    scope,
    depth,
    section: section === null ? null : hrefs([section]),
    anchors: anchors.length === 0 ? null : hrefs(anchors),
    heading: heading || null,
    return: returnWords,
  };
  return Object.entries(said)
    .map(([name, value]) => (value === null ? "" : ` data-${name}="${escapeXml(String(value))}"`))
    .join("");
}
