import { packageOf } from "../../import/epub/package-of-epub.ts";
import { readXhtml } from "../../import/epub/read-xhtml.ts";
import { elements, shownText, type XmlElement } from "../../import/xml-tree.ts";

/**
 * The ways into an e-book from outside: its headings, then all else that has an id, each as an address calls it behind its
 * `#` (EPUB Canonical Fragment Identifiers 1.1) and by its words. Of a page that is not well-formed the beginning alone.
 * @throws ImportError where it is no e-book
 */
export function waysIntoEpub(bytes: Uint8Array): { at: string; name: string }[] {
  const { files, ways } = packageOf(bytes);
  const headings: { at: string; name: string }[] = [];
  const others: typeof headings = [];
  for (const [path, way] of ways) {
    const body = bodyOf(path, files[path]!);
    if (!body) {
      headings.push({ at: fragment(`${way}!/4`), name: path });
      continue;
    }
    const visit = (element: XmlElement, steps: string): void => {
      const isHeading = /^h[1-6]$/.test(element.name);
      const { id } = element.attributes;
      if (isHeading || id)
        (isHeading ? headings : others).push({
          at: fragment(`${way}!${steps}`),
          name: shownText(element) || id || path,
        });
      elements(element).forEach((child, i) => visit(child, `${steps}${stepOf(child, i)}`));
    };
    visit(body.element, body.step);
  }
  return [...headings, ...others];
}

/** A step to a child by its place among the elements, with its id where it has one (2.2). */
export function stepOf({ attributes: { id } }: XmlElement, at: number): string {
  return `/${2 * (at + 1)}${id ? `[${id.replace(/[[\]^,();=]/g, "^$&")}]` : ""}`;
}

function bodyOf(path: string, bytes: Uint8Array): { element: XmlElement; step: string } | null {
  let html: XmlElement;
  try {
    html = readXhtml(path, bytes);
  } catch {
    return null;
  }
  const at = elements(html).findIndex(({ name }) => name === "body");
  const element = elements(html)[at];
  return element ? { element, step: stepOf(element, at) } : null;
}

/** What is not allowed within an address as it is, told by its bytes (RFC 3986, 3.5). */
function fragment(path: string): string {
  return `epubcfi(${encodeURI(path).replace(/\[/g, "%5B").replace(/\]/g, "%5D").replace(/#/g, "%23")})`;
}
