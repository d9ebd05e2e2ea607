import { percentDecoded } from "../../../destination/percent-decoded.ts";
import { parse, type DefaultTreeAdapterTypes } from "parse5";
import { fileBeside, hasScheme, openExport } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  ProofError,
  type ExportedDestination,
  type ExportReading,
  type Fault,
  type FormatTraits,
  type ReadEntry,
} from "../../../proof/exported-link.ts";
import { partsOfPath } from "../../../proof/companion-path.ts";
import { exportedLink, marksOf, PageLinks } from "../../../proof/page-links.ts";

type Element = DefaultTreeAdapterTypes.Element;
type Node = DefaultTreeAdapterTypes.Node;

const traits: FormatTraits = {
  isPaged: false,
  keepsRelative: false,
  hasOwnNotes: false,
  hasTitle: true,
  opensWindows: true,
  hasRoles: true,
};
/** Of one page, and of a folder of them. */
const levelsOfContents = [1, 2] as const;

/**
 * Reads every link out of an exported web page's own bytes, one page or a folder of them, parsed as the HTML
 * standard says. Knows nothing of the writer.
 * @throws ProofError where the page is not UTF-8.
 */
export function readWebPage(bytes: Uint8Array): ExportReading {
  const { name, main, beside } = openExport(bytes);
  const files = new Map([[name, main], ...beside]);
  /** The files that pages show, or look by. */
  const shown = new Set<string>();
  const pages = new Map(
    [...files]
      .filter(([path]) => isPage(path))
      .map(([path, page]) => [path, readPage(path || "the page", page, { files: beside, shown })]),
  );
  const found = [...pages].flatMap(([path, page]) =>
    page.links.map((link) => ({ link, to: destinationOf(link.href, path) })),
  );
  const entries = found.flatMap(({ link, to }): ReadEntry[] =>
    link.list && to.kind === "place"
      ? [{ words: foldBlanks(link.text), targets: [to.target], landing: to.landing }]
      : [],
  );
  const pathOf = (href: string): string | null => {
    const path = percentDecoded(href.split("#")[0]!);
    return !hasScheme(href) && pages.has(path) ? path : null;
  };
  const linkedPages = [...pages].map(([path, page]) => ({
    path,
    places: new Set(page.places.keys()),
    ways: page.links
      .filter(({ isInNav, list }) => isInNav && list === null)
      .map(({ text, href }) => ({ words: foldBlanks(text), opens: pathOf(href) })),
  }));
  const links = found.map(({ link, to }) => exportedLink(link, to));
  return {
    traits,
    pages: null,
    files: beside,
    pageOfPlace: new Map(),
    links,
    pictures: new Map(),
    placesInOrder: [...pages.values()].flatMap(({ places }) => [...places.keys()]),
    placesAside: new Set(),
    notes: marksOf(links),
    linkedPages: pages.size > 1 ? linkedPages : [],
    lists: [
      {
        name: "The list of contents",
        levels: levelsOfContents[pages.size > 1 ? 1 : 0],
        isAsShown: false,
        hasCompanions: pages.size > 1,
        isOwn: false,
        entries,
      },
    ],
    faults: [...[...pages.values()].flatMap(({ faults }) => faults), ...unneeded()],
  };

  /** A server, or a reader’s program, may do by other files what no page says. */
  function unneeded(): Fault[] {
    const led = links.flatMap(({ destination: to }) =>
      to.kind === "file" ? [partsOfPath(to.path).file] : [],
    );
    const needed = new Set([...shown, ...led]);
    return [...beside.keys()]
      .filter((path) => !pages.has(path) && !needed.has(path))
      .map((path) => ({ where: "The folder", what: `No page needs “${path}”.` }));
  }

  function destinationOf(href: string, from: string): ExportedDestination {
    if (hasScheme(href)) return { kind: "address", address: href };
    const [path = "", fragment = ""] = href.split("#");
    const target = path === "" ? from : percentDecoded(path);
    const page = pages.get(target);
    if (!page) return fileBeside(href);
    const id = percentDecoded(fragment);
    const landing = id === "" ? page.top : (page.places.get(id) ?? null);
    return { kind: "place", target: id === "" ? target : id, landing };
  }
}

function readPage(
  name: string,
  bytes: Uint8Array,
  beside: { files: ReadonlyMap<string, Uint8Array>; shown: Set<string> },
): PageLinks {
  const show = (path: string): Uint8Array | undefined => {
    beside.shown.add(percentDecoded(path));
    return beside.files.get(percentDecoded(path));
  };
  const page = new PageLinks(name, (path) => path.startsWith("data:") || show(path) !== undefined);
  const walk = (node: Node): void => {
    if (node.nodeName === "#text") page.text((node as DefaultTreeAdapterTypes.TextNode).value);
    const tag = isElement(node) ? node : null;
    if (tag) {
      const attributes = Object.fromEntries(
        tag.attrs.map(({ prefix, name, value }) => [prefix ? `${prefix}:${name}` : name, value]),
      );
      page.enter(tag.tagName, attributes);
      if (tag.tagName === "link" && attributes["rel"] === "stylesheet") {
        const sheet = show(attributes["href"] ?? "");
        const rules = sheet ? new TextDecoder().decode(sheet) : null;
        for (const [, font = ""] of rules?.matchAll(/url\("([^"]+)"\)/g) ?? []) show(font);
        page.style(rules);
      }
    }
    if ("childNodes" in node) for (const child of node.childNodes) walk(child);
    if (tag) page.leave();
  };
  walk(parse(textOf(name, bytes)));
  return page;
}

function textOf(name: string, bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new ProofError("unreadable", `The web page “${name}” is not text in UTF-8.`);
  }
}

/** Pages of the folder; a companion file may be one too, but lies in a folder of its own. */
function isPage(path: string): boolean {
  return path === "" || (path.endsWith(".html") && !path.includes("/"));
}

function isElement(node: Node): node is Element {
  return "tagName" in node;
}
