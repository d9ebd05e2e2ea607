import type { Root } from "hast";
import { allElements } from "../hast-nodes.ts";
import type { EnclosedFile } from "../manuscript-reader.ts";
import { isPicture } from "../pictures.ts";

/** The pictures that a page has inside it, as data (RFC 2397); in the tree each is called by a name. */
export function picturesInside(tree: Root): EnclosedFile[] {
  const found = new Map<string, EnclosedFile>();
  for (const { tagName, properties } of allElements(tree)) {
    if (tagName !== "img" && tagName !== "image") continue;
    for (const key of ["src", "href", "xLinkHref"]) {
      const address = properties[key];
      if (typeof address !== "string" || !/^data:image\//i.test(address)) continue;
      const known = found.get(address);
      const bytes = known ? known.bytes : bytesOfData(address);
      if (bytes === null) continue;
      const name = known?.name ?? `picture-${found.size + 1}`;
      found.set(address, { reference: `inside:${name}`, name, bytes });
      properties[key] = `inside:${name}`;
    }
  }
  return [...found.values()];
}

/** The bytes of a picture that is an address of data (RFC 2397); null where they are none. */
export function bytesOfData(address: string): Uint8Array | null {
  const [, kind = "", data = ""] = /^data:([^,]*),(.*)$/s.exec(address) ?? [];
  try {
    const letters = /;base64\s*$/i.test(kind) ? atob(data.replace(/\s+/g, "")) : decodeURIComponent(data);
    const bytes = Uint8Array.from(letters, (letter) => letter.charCodeAt(0) & 0xff);
    return isPicture(bytes) ? bytes : null;
  } catch {
    return null;
  }
}
