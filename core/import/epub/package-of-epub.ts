import { strFromU8 } from "fflate";
import { unpacked } from "../containers.ts";
import { damaged, ImportError } from "../errors.ts";
import { conventionsOf } from "../hast-to-manuscript/carried.ts";
import { pathFrom } from "../joined-pages.ts";
import type { AboutManuscript } from "../manuscript-reader.ts";
import { folderOfEpub } from "./folder-of-epub.ts";
import { childOf, elements, readXml, textOf, type XmlElement } from "../xml-tree.ts";

/** A publication in its container: its files, and which of them are read, in their order (EPUB 2 and 3). */
export interface EpubPackage {
  files: Record<string, Uint8Array>;
  /** Where among the files it lies: "" where it ought to. */
  folder: string;
  /** The paths of the pages of text, without the navigation. */
  pages: string[];
  /** All pages of XHTML, those that are read in order first, the navigation among them. */
  allPages: { path: string; isInOrder: boolean; isNavigation: boolean }[];
  /** The paths of the navigation (EPUB 3) and of the NCX (EPUB 2); null for one that is not there. */
  navigation: string | null;
  ncx: string | null;
  about: AboutManuscript;
  /** The way from the package to each page that is read in order (EPUB Canonical Fragment Identifiers 1.1). */
  ways: ReadonlyMap<string, string>;
}

const pageTypes = new Set(["application/xhtml+xml", "text/html", "application/x-dtbook+xml"]);

/** @throws ImportError `format` where the container has no package, or is locked */
export function packageOf(bytes: Uint8Array): EpubPackage {
  const files = unpacked(bytes);
  const tree = (path: string): XmlElement | null =>
    files[path] ? readXml(path, strFromU8(files[path]).replace(/^\ufeff/, "")) : null;
  const folder = folderOfEpub(Object.keys(files)) ?? "";
  const container = tree(`${folder}META-INF/container.xml`);
  const said = childOf(childOf(container ?? undefined, "rootfiles"), "rootfile")?.attributes["full-path"];
  const path = said === undefined ? "" : folder + said;
  const opf = tree(path);
  if (!opf) throw damaged("The e-book does not say what is in it.");
  const isLocked =
    strFromU8(
      files[`${folder}META-INF/rights.xml`] ?? files[`${folder}META-INF/license.lcpl`] ?? new Uint8Array(),
    ) !== "";
  if (isLocked)
    throw new ImportError(
      "format",
      "The e-book is locked, so that only some programs open it. Bring one without a lock.",
    );
  const items = new Map(
    elements(childOf(opf, "manifest")).map(({ attributes }) => [
      attributes["id"] ?? "",
      {
        path: pathFrom(path, attributes["href"] ?? ""),
        type: attributes["media-type"] ?? "",
        isNavigation: /(^|\s)nav(\s|$)/.test(attributes["properties"] ?? ""),
      },
    ]),
  );
  const inOrder = elements(childOf(opf, "spine")).map(({ attributes }) =>
    items.get(attributes["idref"] ?? ""),
  );
  // Some say each place of a page as an item of its own: it is read once.
  const pages = [
    ...new Set(
      inOrder.flatMap((item) =>
        item && pageTypes.has(item.type) && !item.isNavigation && files[item.path] ? [item.path] : [],
      ),
    ),
  ];
  const spineAt = elements(opf).findIndex(({ name }) => name === "spine");
  const isPage = (item: (typeof inOrder)[number]): item is NonNullable<typeof item> =>
    item?.type === "application/xhtml+xml" && files[item.path] !== undefined;
  const ways = new Map<string, string>();
  for (const [i, item] of inOrder.entries())
    if (isPage(item) && !ways.has(item.path)) ways.set(item.path, `/${2 * (spineAt + 1)}/${2 * (i + 1)}`);
  const paths = new Set([...inOrder, ...items.values()].filter(isPage).map((item) => item.path));
  const navigations = new Set([...items.values()].filter((one) => one.isNavigation).map((one) => one.path));
  const allPages = [...paths].map((one) => ({
    path: one,
    isInOrder: ways.has(one),
    isNavigation: navigations.has(one),
  }));
  if (pages.length === 0) throw damaged("The e-book has no page with text in it.");
  const metadata = childOf(opf, "metadata");
  const told = (name: string): string | null => {
    const one = childOf(metadata, name);
    return one ? textOf(one).trim() || null : null;
  };
  const counts = elements(metadata).find(({ attributes }) => attributes["name"] === "vennet-counts");
  const conventions = conventionsOf(counts?.attributes["content"]);
  const about = { title: told("title"), author: told("creator"), language: told("language"), conventions };
  const all = [...items.values()];
  const navigation = all.find(({ isNavigation }) => isNavigation)?.path ?? null;
  const ncx = all.find(({ type }) => type === "application/x-dtbncx+xml")?.path ?? null;
  return { files, folder, pages, allPages, navigation, ncx, about, ways };
}
