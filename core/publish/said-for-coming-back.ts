import type { LinkAttrs, SignpostList } from "../manuscript/attributes.ts";
import type { Hotspot } from "../manuscript/hotspot.ts";
import { escapeXml } from "./xhtml/escape-xml.ts";

// What exports say of things whose like their formats do not have (docs/formats.md); null for what there is none of.

/** What is said of one thing, by the names that HTML has behind `data-`. */
export type Said = Readonly<Record<string, string | number | null>>;

/** What a signpost list follows. @param hrefOf the address of a place, seen from the list; null for one that is gone */
export function saidOfList(
  { of, scope, section, depth, anchors, heading, returnWords }: SignpostList,
  hrefOf: (id: string) => string | null,
): Said {
  const hrefs = (ids: readonly string[]): string => ids.flatMap((id) => hrefOf(id) ?? []).join(" ");
  return {
    signposts: of,
    scope,
    depth,
    section: section === null ? null : hrefs([section]),
    anchors: anchors.length === 0 ? null : hrefs(anchors),
    heading: heading || null,
    return: returnWords,
  };
}

/** The look of its own that a link has. */
export function saidOfLook({ asText, look }: Pick<LinkAttrs, "asText" | "look">): string | null {
  return asText ? "text" : look ? JSON.stringify(look) : null;
}

/** An area of a picture, where it is a link behind it. */
export function saidOfArea({ shape, points, frame }: Hotspot): Said {
  return {
    area: [shape, ...points.map((point) => point.join(","))].join(" "),
    frame: frame.line === "none" ? null : JSON.stringify(frame),
  };
}

/** All that is said, as attributes of HTML. @param escape what an attribute's words may not hold, where that is more */
export function asAttributes(said: Said, escape = escapeXml): string {
  return Object.entries(said)
    .map(([name, value]) => (value === null ? "" : ` data-${name}="${escape(String(value))}"`))
    .join("");
}
