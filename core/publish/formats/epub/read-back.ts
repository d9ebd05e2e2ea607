import { percentDecoded } from "../../../destination/percent-decoded.ts";
import { strFromU8, unzipSync } from "fflate";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { hasScheme } from "../../../proof/exported-folder.ts";
import { judgePageList } from "../../../proof/judge-lists.ts";
import { exportedLink, marksOf, PageLinks, type PageLink } from "../../../proof/page-links.ts";
import {
  foldBlanks,
  ProofError,
  type ExportedDestination,
  type ExportReading,
  type FormatTraits,
  type ReadEntry,
} from "../../../proof/exported-link.ts";

const traits: FormatTraits = {
  isPaged: false,
  keepsRelative: false,
  hasOwnNotes: false,
  hasTitle: true,
  opensWindows: false,
  hasRoles: true,
};
/** Chapters and two levels of headings: as many as its navigation document has. */
const levelsOfContents = 3;

/**
 * Reads every link out of an EPUB's own bytes: unzips it, follows container and package document to the
 * reading order, and parses each XHTML file as XML. Knows nothing of the writer.
 * @throws ProofError where the container or one of its files cannot be read.
 */
export function readEpub(bytes: Uint8Array): ExportReading {
  const files = open(bytes);
  const packagePath = attributeIn(files, "META-INF/container.xml", "rootfile", "full-path");
  const { spine, others } = readSpine(files, packagePath);
  const pages = new Map(spine.map((file) => [file, readPage(files, file)]));
  // Links name files as they lie beside the package document.
  const home = packagePath.lastIndexOf("/") + 1;
  const companions = [...others].flatMap((path): [string, Uint8Array][] =>
    files[path] ? [[path.slice(home), files[path]]] : [],
  );
  const found = [...pages].flatMap(([file, page]) => page.links.map((link) => ({ link, file })));
  const destinationOf = (link: PageLink, file: string): ExportedDestination => {
    if (hasScheme(link.href)) return { kind: "address", address: link.href };
    const target = resolve(file, link.href);
    if (!pages.has(target.file) && others.has(target.file))
      return {
        kind: "file",
        path: target.file.slice(home) + (target.fragment && `#${percentDecoded(target.fragment)}`),
      };
    const id = percentDecoded(target.fragment);
    const page = pages.get(target.file);
    const landing = (id === "" ? page?.top : page?.places.get(id)) ?? null;
    return { kind: "place", target: id === "" ? target.file : id, landing };
  };
  const links = found.map(({ link, file }) => exportedLink(link, destinationOf(link, file)));
  const entriesOf = (type: string): ReadEntry[] =>
    found.flatMap(({ link, file }) => {
      const to = destinationOf(link, file);
      return link.list?.type === type && to.kind === "place"
        ? [{ words: foldBlanks(link.text), targets: [to.target], landing: to.landing }]
        : [];
    });
  const breaks = new Map([...pages.values()].flatMap((page) => [...page.breaks]));
  return {
    traits,
    pages: null,
    files: new Map(companions),
    pageOfPlace: new Map(),
    links,
    pictures: new Map(),
    placesInOrder: [...pages.values()].flatMap(({ places }) => [...places.keys()]),
    notes: marksOf(links),
    linkedPages: [],
    lists: [
      {
        name: "The navigation document",
        levels: levelsOfContents,
        isAsShown: false,
        hasCompanions: true,
        isOwn: true,
        entries: entriesOf("toc"),
      },
    ],
    faults: [
      ...[...pages.values()].flatMap(({ faults }) => faults),
      ...judgePageList(breaks, entriesOf("page-list")),
    ],
  };
}

function open(bytes: Uint8Array): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes);
  } catch (error) {
    throw new ProofError("unreadable", `The e-book is not a readable container: ${(error as Error).message}`);
  }
}

function textOf(files: Record<string, Uint8Array>, path: string): string {
  const bytes = files[path];
  if (!bytes) throw new ProofError("unreadable", `The e-book has no file “${path}”.`);
  return strFromU8(bytes);
}

function parse(
  xml: string,
  path: string,
  onOpen: (tag: SaxesTagPlain) => void,
  more: { onText?: (text: string) => void; onClose?: (tag: SaxesTagPlain) => void } = {},
): void {
  const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false, fileName: path } as { xmlns: false });
  parser.on("error", (error) => {
    throw new ProofError("unreadable", `“${path}” in the e-book is not well-formed: ${error.message}`);
  });
  parser.on("opentag", onOpen);
  parser.on("text", (text) => more.onText?.(text));
  parser.on("closetag", (tag) => more.onClose?.(tag));
  parser.write(xml).close();
}

function attributeIn(
  files: Record<string, Uint8Array>,
  path: string,
  tag: string,
  attribute: string,
): string {
  let value: string | null = null;
  parse(textOf(files, path), path, (open) => {
    if (open.name === tag) value ??= open.attributes[attribute] ?? null;
  });
  if (value === null) throw new ProofError("unreadable", `“${path}” in the e-book names no ${tag}.`);
  return value;
}

/** The pages in their order, and what else readers may be led to. */
function readSpine(
  files: Record<string, Uint8Array>,
  packagePath: string,
): { spine: string[]; others: Set<string> } {
  const items = new Map<string, { href: string; isPage: boolean }>();
  const spine: string[] = [];
  parse(textOf(files, packagePath), packagePath, (tag) => {
    if (tag.name === "item") {
      const isPage = tag.attributes["media-type"] === "application/xhtml+xml";
      items.set(tag.attributes["id"]!, { href: tag.attributes["href"]!, isPage });
    }
    if (tag.name === "itemref") spine.push(tag.attributes["idref"]!);
  });
  const placed = spine.map((id) => items.get(id) ?? { href: "", isPage: true });
  const paths = (isPage: boolean): string[] =>
    placed.filter((item) => item.isPage === isPage).map(({ href }) => resolve(packagePath, href).file);
  return { spine: paths(true), others: new Set(paths(false)) };
}

function readPage(files: Record<string, Uint8Array>, file: string): PageLinks {
  const page = new PageLinks(file);
  parse(
    textOf(files, file),
    file,
    ({ name, attributes }) => {
      page.enter(name, attributes);
      if (name !== "link" || attributes["rel"] !== "stylesheet") return;
      page.style(textOf(files, resolve(file, attributes["href"] ?? "").file));
    },
    { onText: (text) => page.text(text), onClose: () => page.leave() },
  );
  return page;
}

function resolve(from: string, href: string): { file: string; fragment: string } {
  const url = new URL(href, `epub:///${from}`);
  return { file: percentDecoded(url.pathname.replace(/^\/+/, "")), fragment: url.hash.slice(1) };
}
