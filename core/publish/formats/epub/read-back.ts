import { percentDecoded } from "../../../destination/percent-decoded.ts";
import { unzipSync } from "fflate";
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
import { parseXml, readPackage, resolve, textOf, type ContainerFiles } from "./read-package.ts";

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
  const { path: packagePath, spine, aside, others, faults } = readPackage(bytes, files);
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
    placesAside: new Set(
      [...pages].flatMap(([path, { places }]) => (aside.has(path) ? [...places.keys()] : [])),
    ),
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
      ...faults,
      ...[...pages.values()].flatMap(({ faults }) => faults),
      ...judgePageList(breaks, entriesOf("page-list")),
    ],
  };
}

function open(bytes: Uint8Array): ContainerFiles {
  try {
    return unzipSync(bytes);
  } catch (error) {
    throw new ProofError("unreadable", `The e-book is not a readable container: ${(error as Error).message}`);
  }
}

function readPage(files: ContainerFiles, file: string): PageLinks {
  const page = new PageLinks(file, (src) => resolve(file, src).file in files);
  parseXml(
    files,
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
