import { strFromU8, unzipSync } from "fflate";

/** One page of the e-book's reading order. */
export interface EpubPage {
  /** Its path in the container. */
  path: string;
  isLinear: boolean;
}

/** An exported e-book, opened. */
export interface OpenEpub {
  /** All files of the container, by their paths. */
  files: ReadonlyMap<string, Uint8Array>;
  /** The pages of the spine, in order. */
  pages: EpubPage[];
  /** The contents list of the navigation document. */
  contents: { words: string; depth: number; path: string; fragment: string }[];
}

/** Opens an e-book from its own bytes: container, package document, navigation document (EPUB 3.3). */
export function openEpub(bytes: Uint8Array): OpenEpub {
  const files = new Map(Object.entries(unzipSync(bytes)));
  const container = xmlOf(files, "META-INF/container.xml");
  const packagePath = container.querySelector("rootfile")?.getAttribute("full-path") ?? "";
  const document = xmlOf(files, packagePath);
  const items = new Map(
    [...document.querySelectorAll("manifest > item")].map((item) => [item.getAttribute("id"), item]),
  );
  const pages: EpubPage[] = [];
  for (const reference of document.querySelectorAll("spine > itemref")) {
    const item = items.get(reference.getAttribute("idref"));
    // What is no page stands in the spine only so that links may lead to it.
    if (item?.getAttribute("media-type") !== "application/xhtml+xml") continue;
    pages.push({
      path: resolvePath(packagePath, item.getAttribute("href") ?? "").path,
      isLinear: reference.getAttribute("linear") !== "no",
    });
  }
  const nav = [...items.values()].find((item) => item.getAttribute("properties")?.split(" ").includes("nav"));
  const navPath = resolvePath(packagePath, nav?.getAttribute("href") ?? "").path;
  return { files, pages, contents: contentsOf(files, navPath) };
}

/** A page of the container as XHTML. */
export function xmlOf(files: ReadonlyMap<string, Uint8Array>, path: string): XMLDocument {
  const bytes = files.get(path);
  if (!bytes) throw new Error(`The e-book has no file “${path}”.`);
  const document = new DOMParser().parseFromString(strFromU8(bytes), "application/xml");
  if (document.querySelector("parsererror")) throw new Error(`“${path}” in the e-book is not well-formed.`);
  return document;
}

/** The file of the container, and the part of it, that a relative address leads to. */
export function resolvePath(from: string, href: string): { path: string; fragment: string } {
  const url = new URL(href, `epub://book/${from}`);
  return {
    path: decodeURIComponent(url.pathname.replace(/^\/+/, "")),
    fragment: decodeURIComponent(url.hash.slice(1)),
  };
}

function contentsOf(files: ReadonlyMap<string, Uint8Array>, path: string): OpenEpub["contents"] {
  const nav = [...xmlOf(files, path).getElementsByTagName("nav")].find(
    (one) => one.getAttribute("epub:type") === "toc",
  );
  return [...(nav?.getElementsByTagName("a") ?? [])].map((link) => {
    let depth = -1;
    for (let at: Element | null = link; at && at !== nav; at = at.parentElement)
      if (at.localName === "ol") depth++;
    return {
      words: link.textContent ?? "",
      depth,
      ...resolvePath(path, link.getAttribute("href") ?? ""),
    };
  });
}
