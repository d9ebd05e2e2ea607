import type { ContentsEntry } from "./reader-frame";

/** One page of a file whose text flows. */
export interface FlowPage {
  /** Its path in the file. */
  path: string;
  isLinear: boolean;
}

/** An exported file whose text flows, opened: an e-book, or one or more web pages. */
export interface OpenFlow {
  kind: "e-book" | "web page";
  /** Whether it is laid out screen by screen, as reading devices do, or in one window. */
  inScreens: boolean;
  /** The folder in which everything that links name stands, with its slash; empty where there is none. */
  folder: string;
  /** All files in it or beside it, by their paths. */
  files: ReadonlyMap<string, Uint8Array>;
  /** Its pages, in reading order. */
  pages: FlowPage[];
  contents: (ContentsEntry & { path: string; fragment: string })[];
  /** One of its pages, which is nobody's to change. */
  page: (path: string) => Document;
}

/** Parses each page once, however often it is shown. */
export function parsedOnce(parse: (path: string) => Document): OpenFlow["page"] {
  const parsed = new Map<string, Document>();
  return (path) => {
    const page = parsed.get(path) ?? parse(path);
    parsed.set(path, page);
    return page;
  };
}

/** The file, and the part of it, that a relative address leads to. */
export function resolvePath(from: string, href: string): { path: string; fragment: string } {
  const url = new URL(href, `epub://book/${from}`);
  return {
    path: decodeURIComponent(url.pathname.replace(/^\/+/, "")),
    fragment: decodeURIComponent(url.hash.slice(1)),
  };
}

/** The entries of a list of links, as deep as the lists that they stand in. */
export function entriesOf(nav: Element | undefined, path: string, list: "ol" | "ul"): OpenFlow["contents"] {
  return [...(nav?.getElementsByTagName("a") ?? [])].map((link) => {
    let depth = -1;
    for (let at: Element | null = link; at && at !== nav; at = at.parentElement)
      if (at.localName === list) depth++;
    return { words: link.textContent ?? "", depth, ...resolvePath(path, link.getAttribute("href") ?? "") };
  });
}

/** The address of a link of XHTML, or of SVG 1.1. */
export function hrefOf(link: Element): string | null {
  return link.getAttribute("href") ?? link.getAttribute("xlink:href");
}
