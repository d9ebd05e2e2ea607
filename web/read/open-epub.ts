import { withoutNamedLetters } from "@vennet/core/import/epub/named-letters";
import { unzipSync } from "fflate";
import { entriesOf, parsedOnce, resolvePath, type FlowPage, type OpenFlow } from "./open-flow";

/** Opens an e-book from its own bytes: container, package document, navigation document (EPUB 3.3). */
export function openEpub(bytes: Uint8Array): OpenFlow {
  const files = new Map(Object.entries(unzipSync(bytes)));
  const container = xmlOf(files, "META-INF/container.xml");
  const packagePath = container.querySelector("rootfile")?.getAttribute("full-path") ?? "";
  const document = xmlOf(files, packagePath);
  const items = new Map(
    [...document.querySelectorAll("manifest > item")].map((item) => [item.getAttribute("id"), item]),
  );
  const pages: FlowPage[] = [];
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
  const pathOf = (item: Element | undefined): string =>
    resolvePath(packagePath, item?.getAttribute("href") ?? "").path;
  const contents = (): OpenFlow["contents"] => {
    if (nav) {
      const toc = [...xmlOf(files, pathOf(nav)).getElementsByTagName("nav")].find(
        (one) => one.getAttribute("epub:type") === "toc",
      );
      return entriesOf(toc, pathOf(nav), "ol");
    }
    return ncx ? entriesOfNcx(xmlOf(files, pathOf(ncx)), pathOf(ncx)) : [];
  };
  const ncx = items.get(document.querySelector("spine")?.getAttribute("toc") ?? "");
  return {
    kind: "e-book",
    inScreens: true,
    folder: packagePath.slice(0, packagePath.lastIndexOf("/") + 1),
    files,
    pages,
    contents: contents(),
    page: parsedOnce((path) => xmlOf(files, path)),
  };
}

/** The entries of the contents of an e-book of version 2 (OPF 2.0.1, 2.4.1). */
function entriesOfNcx(document: Document, path: string): OpenFlow["contents"] {
  return [...document.getElementsByTagName("navPoint")].map((point) => {
    let depth = -1;
    for (let at: Element | null = point; at?.localName === "navPoint"; at = at.parentElement) depth++;
    const child = (name: string): Element | undefined =>
      [...point.children].find(({ localName }) => localName === name);
    return {
      words: child("navLabel")?.textContent?.trim() ?? "",
      depth,
      ...resolvePath(path, child("content")?.getAttribute("src") ?? ""),
    };
  });
}

function xmlOf(files: ReadonlyMap<string, Uint8Array>, path: string): XMLDocument {
  const bytes = files.get(path);
  if (!bytes) throw new Error(`The e-book has no file “${path}”.`);
  const text = withoutNamedLetters(new TextDecoder().decode(bytes));
  const document = new DOMParser().parseFromString(text, "application/xml");
  if (document.querySelector("parsererror")) throw new Error(`“${path}” in the e-book is not well-formed.`);
  return document;
}
