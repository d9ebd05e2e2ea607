import { parse, type DefaultTreeAdapterTypes } from "parse5";
import { fileBeside, hasScheme, openExport } from "./exported-folder.ts";
import { foldBlanks, ProofError, type ExportedLink, type ExportReading } from "./exported-link.ts";

type Element = DefaultTreeAdapterTypes.Element;
type Node = DefaultTreeAdapterTypes.Node;

/**
 * Reads every link out of an exported web page's own bytes, parsed as the HTML standard says. Knows nothing
 * of the writer.
 * @throws ProofError where the page is not UTF-8.
 */
export function readWebPage(bytes: Uint8Array): ExportReading {
  const { main, beside } = openExport(bytes);
  let html: string;
  try {
    html = new TextDecoder("utf-8", { fatal: true }).decode(main);
  } catch {
    throw new ProofError("unreadable", "The web page is not text in UTF-8.");
  }
  const ids = new Set<string>();
  const found: { element: Element; inNav: boolean }[] = [];
  const walk = (node: Node, inNav: boolean): void => {
    if (isElement(node)) {
      const id = attribute(node, "id");
      if (id !== null) ids.add(id);
      if (node.tagName === "a" && hrefOf(node) !== null) found.push({ element: node, inNav });
    }
    const inside = inNav || (isElement(node) && node.tagName === "nav");
    if ("childNodes" in node) for (const child of node.childNodes) walk(child, inside);
  };
  walk(parse(html), false);
  const links = found.map(({ element, inNav }): ExportedLink => {
    const href = hrefOf(element)!;
    const target = decodeURIComponent(href.replace(/^#/, ""));
    return {
      destination: href.startsWith("#")
        ? { as: "place", target, lands: ids.has(target) }
        : hasScheme(href)
          ? { as: "address", address: href }
          : fileBeside(href, beside),
      text: foldBlanks(textOf(element)),
      description: attribute(element, "title"),
      where: "the page",
      page: null,
      apparatus: inNav,
    };
  });
  return { format: "web", pages: null, pageOfPlace: new Map(), links };
}

function isElement(node: Node): node is Element {
  return "tagName" in node;
}

function attribute(element: Element, name: string): string | null {
  return element.attrs.find((attr) => attr.name === name)?.value ?? null;
}

/** The address of an `a` of HTML, or of SVG 1.1, whose attributes the parser gives without their prefix. */
function hrefOf(element: Element): string | null {
  return attribute(element, "href");
}

function textOf(node: Node): string {
  if (node.nodeName === "#text") return (node as DefaultTreeAdapterTypes.TextNode).value;
  if (node.nodeName === "br") return " ";
  if (node.nodeName === "img") return attribute(node as Element, "alt") ?? "";
  return "childNodes" in node ? node.childNodes.map(textOf).join("") : "";
}
