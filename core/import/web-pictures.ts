import type { Root } from "hast";
import { allElements } from "./hast-nodes.ts";

/** A picture that a manuscript has on the web: how it names it, and its whole address. */
export interface WebPicture {
  source: string;
  address: string;
}

/**
 * The pictures of a tree that lie on the web and did not come along, each once.
 * @param baseAddress from which relative ones start; null where they are files
 * @param hasCome whether a picture came along
 */
export function webPicturesOf(
  tree: Root,
  baseAddress: string | null,
  hasCome: (source: string) => boolean,
): WebPicture[] {
  const found = new Map<string, WebPicture>();
  for (const { tagName, properties } of allElements(tree)) {
    const source = properties["src"];
    if (tagName !== "img" || typeof source !== "string" || source.trim() === "" || hasCome(source)) continue;
    const address = webAddress(source.trim(), baseAddress);
    if (address !== null) found.set(source, { source, address });
  }
  return [...found.values()];
}

function webAddress(source: string, baseAddress: string | null): string | null {
  // Without a base, what begins with two slashes says no scheme.
  const whole = source.startsWith("//") && baseAddress === null ? `https:${source}` : source;
  if (!URL.canParse(whole, baseAddress ?? undefined)) return null;
  const { protocol, href } = new URL(whole, baseAddress ?? undefined);
  return protocol === "https:" || protocol === "http:" ? href : null;
}
