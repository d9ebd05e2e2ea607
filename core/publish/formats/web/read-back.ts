import { parse, type DefaultTreeAdapterTypes } from "parse5";
import { fileBeside, hasScheme, openExport } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  ProofError,
  type ExportedDestination,
  type ExportedLink,
  type ExportReading,
  type FormatTraits,
} from "../../../proof/exported-link.ts";
import { LandingTexts } from "../../../proof/landing-texts.ts";
import { whereInPage } from "../../../proof/where-in-page.ts";

type Element = DefaultTreeAdapterTypes.Element;
type Node = DefaultTreeAdapterTypes.Node;

const traits: FormatTraits = { isPaged: false, hasOwnNotes: false, hasTitle: true };

/**
 * Reads every link out of an exported web page's own bytes, one page or a folder of them, parsed as the HTML
 * standard says. Knows nothing of the writer.
 * @throws ProofError where the page is not UTF-8.
 */
export function readWebPage(bytes: Uint8Array): ExportReading {
  const { name, main, beside } = openExport(bytes);
  const files = new Map([[name, main], ...beside]);
  const pages = new Map(
    [...files]
      .filter(([path]) => isPage(path))
      .map(([path, page]) => [path, readPage(path || "the page", page)]),
  );
  const links = [...pages].flatMap(([path, { found }]) =>
    found.map(({ element, inNav, where }): ExportedLink => ({
      destination: destinationOf(hrefOf(element)!, path),
      text: foldBlanks(textOf(element)),
      description: attribute(element, "title"),
      where,
      page: null,
      boxes: [],
      apparatus: inNav,
    })),
  );
  return { traits, pages: null, files: beside, pageOfPlace: new Map(), links };

  function destinationOf(href: string, from: string): ExportedDestination {
    if (hasScheme(href)) return { kind: "address", address: href };
    const [path = "", fragment = ""] = href.split("#");
    const target = path === "" ? from : decodeURIComponent(path);
    const page = pages.get(target);
    if (!page) return fileBeside(path);
    const id = decodeURIComponent(fragment);
    const landing = id === "" ? "" : (page.landings.get(id) ?? null);
    return { kind: "place", target: id === "" ? target : id, landing };
  }
}

function readPage(
  name: string,
  bytes: Uint8Array,
): { landings: ReadonlyMap<string, string>; found: { element: Element; inNav: boolean; where: string }[] } {
  let html: string;
  try {
    html = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new ProofError("unreadable", `The web page “${name}” is not text in UTF-8.`);
  }
  const landings = new LandingTexts();
  const found: { element: Element; inNav: boolean; where: string }[] = [];
  const walk = (node: Node, inNav: boolean): void => {
    const tag = isElement(node) ? node : null;
    const inside = inNav || tag?.tagName === "nav";
    if (tag) {
      landings.open(tag.tagName, attribute(tag, "id"));
      if (tag.tagName === "a" && hrefOf(tag) !== null)
        found.push({ element: tag, inNav, where: whereInPage(name, attribute(tag, "id"), found.length + 1) });
    }
    if (node.nodeName === "#text") landings.text((node as DefaultTreeAdapterTypes.TextNode).value);
    if ("childNodes" in node) for (const child of node.childNodes) walk(child, inside);
    if (tag) landings.close();
  };
  walk(parse(html), false);
  return { landings: landings.found, found };
}

/** Pages of the folder; a companion file may be one too, but lies in a folder of its own. */
function isPage(path: string): boolean {
  return path === "" || (path.endsWith(".html") && !path.includes("/"));
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
