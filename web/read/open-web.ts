import { openExport } from "@vennet/core/proof/exported-folder";
import { entriesOf, parsedOnce, type OpenFlow } from "./open-flow";

/** Opens an exported web page from its own bytes: the page alone, or a folder of pages in a zip. */
export function openWeb(bytes: Uint8Array): OpenFlow {
  const { name, main, beside } = openExport(bytes);
  const files = new Map([[name, main], ...beside]);
  // The first page is the index; a companion file may be a page too, but lies in a folder of its own.
  const paths = [name, ...[...beside.keys()].filter((path) => /^[^/]+\.html$/.test(path))];
  const page = parsedOnce((path) => {
    const found = files.get(path);
    if (!found) throw new Error(`The folder has no page “${path}”.`);
    return new DOMParser().parseFromString(new TextDecoder().decode(found), "text/html");
  });
  return {
    kind: "web page",
    inScreens: false,
    folder: "",
    files,
    pages: paths.map((path) => ({ path, isLinear: true })),
    contents:
      paths.length > 1
        ? entriesOf(page(name).querySelector("nav") ?? undefined, name, "ul")
        : headingsOf(page(name), name),
    page,
  };
}

/** What a page alone has instead of an index: its headings that can be jumped to. */
function headingsOf(page: Document, path: string): OpenFlow["contents"] {
  return [...page.querySelectorAll("h1[id], h2[id], h3[id], h4[id]")].map((heading) => ({
    words: heading.textContent ?? "",
    depth: Number(heading.localName.slice(1)) - 1,
    path,
    fragment: heading.id,
  }));
}
