import { strFromU8, unzipSync } from "fflate";
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
  const navPath = resolvePath(packagePath, nav?.getAttribute("href") ?? "").path;
  const toc = [...xmlOf(files, navPath).getElementsByTagName("nav")].find(
    (one) => one.getAttribute("epub:type") === "toc",
  );
  return {
    kind: "e-book",
    inScreens: true,
    folder: packagePath.slice(0, packagePath.lastIndexOf("/") + 1),
    files,
    pages,
    contents: entriesOf(toc, navPath, "ol"),
    page: parsedOnce((path) => xmlOf(files, path)),
  };
}

function xmlOf(files: ReadonlyMap<string, Uint8Array>, path: string): XMLDocument {
  const bytes = files.get(path);
  if (!bytes) throw new Error(`The e-book has no file “${path}”.`);
  const document = new DOMParser().parseFromString(strFromU8(bytes), "application/xml");
  if (document.querySelector("parsererror")) throw new Error(`“${path}” in the e-book is not well-formed.`);
  return document;
}
