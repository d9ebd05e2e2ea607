import { percentDecoded } from "../../destination/percent-decoded.ts";
import { unpacked } from "../containers.ts";
import { damaged, ImportError } from "../errors.ts";
import { FileNames } from "../file-name.ts";
import { conventionsOf } from "../hast-to-manuscript/carried.ts";
import { pathFrom } from "../joined-pages.ts";
import type { AboutManuscript } from "../manuscript-reader.ts";
import { decodePage } from "../text-encoding.ts";
import { folderOfEpub } from "./folder-of-epub.ts";
import { readXhtml } from "./read-xhtml.ts";
import { childOf, elements, textOf, type XmlElement } from "../xml-tree.ts";

/** A publication in its container: its files, and which of them are read, in their order (EPUB 2 and 3). */
export interface EpubPackage {
  files: Record<string, Uint8Array>;
  /** Where among the files it lies: "" where it ought to. */
  folder: string;
  /** The paths of the pages of text and drawings, without the navigation. */
  pages: string[];
  /** The paths of what is in the order of reading and cannot be read, or is not there. */
  unread: string[];
  /** All pages of XHTML, those that are read in order first, the navigation among them. */
  allPages: { path: string; isInOrder: boolean; isNavigation: boolean }[];
  /** The paths of the navigation (EPUB 3) and of the NCX (EPUB 2); null for one that is not there. */
  navigation: string | null;
  ncx: string | null;
  about: AboutManuscript;
  /** The way from the package to each page that is read in order (EPUB Canonical Fragment Identifiers 1.1). */
  ways: ReadonlyMap<string, string>;
}

const pageTypes = new Set([
  "application/xhtml+xml",
  "text/html",
  "application/x-dtbook+xml",
  "text/x-oeb1-document",
]);
const packageType = "application/oebps-package+xml";
const drawing = "image/svg+xml";

interface Item {
  path: string;
  type: string;
  isNavigation: boolean;
  /** The id of what is read in its place by who cannot read it (EPUB 3.3, 3.5.1). */
  fallback: string;
}

/** Whether an item is a page of text, by what it is called or, where that says nothing, by its file's name. */
function isText({ type, path }: Item): boolean {
  return pageTypes.has(type) || (/\.x?html?$/i.test(path) && !/^(image|audio|video|font)\//.test(type));
}

/**
 * @throws ImportError `format` where the container has no package, or is locked
 */
export function packageOf(bytes: Uint8Array): EpubPackage {
  const files = unpacked(bytes);
  const names = new FileNames(Object.keys(files));
  const tree = (path: string): XmlElement | null => (files[path] ? readXhtml(path, files[path]) : null);
  const folder = folderOfEpub(Object.keys(files)) ?? "";
  const rootfiles = elements(childOf(tree(`${folder}META-INF/container.xml`) ?? undefined, "rootfiles"));
  // The first that is a package; others are the same work in other formats (EPUB 3.3, 4.2.6.3.1).
  const root = rootfiles.find(({ attributes }) => attributes["media-type"] === packageType) ?? rootfiles[0];
  const said = root?.attributes["full-path"];
  const path = said === undefined ? "" : (names.meant(folder + said) ?? "");
  const opf = tree(path);
  if (!opf) throw damaged("The e-book does not say what is in it.");
  const items = new Map(
    elements(childOf(opf, "manifest")).map(({ attributes }): [string, Item] => {
      const to = pathFrom(path, attributes["href"] ?? "");
      return [
        attributes["id"] ?? "",
        {
          path: names.meant(to) ?? to,
          type: attributes["media-type"] ?? "",
          isNavigation: /(^|\s)nav(\s|$)/.test(attributes["properties"] ?? ""),
          fallback: attributes["fallback"] ?? "",
        },
      ];
    }),
  );
  const inOrder = elements(childOf(opf, "spine")).map(({ attributes }) =>
    items.get(attributes["idref"] ?? ""),
  );
  refuseLocked(files, folder, [...items.values()].filter(isText));
  const metadata = childOf(opf, "metadata");
  const counts = elements(metadata).find(({ attributes }) => attributes["name"] === "vennet-counts");
  const conventions = conventionsOf(counts?.attributes["content"]);
  // What an export of ours has in the place of a file tells readers of that file alone.
  const others = conventions ? new Map<string, Item>() : items;
  const readable = inOrder.map((item) => (item?.isNavigation ? null : instead(item, others, files)));
  // Some say each place of a page as an item of its own: it is read once.
  const pages = [...new Set(readable.flatMap((item) => (item ? [item.path] : [])))];
  const unread = conventions
    ? []
    : inOrder.flatMap((item, i) => (item && !item.isNavigation && !readable[i] ? [item.path] : []));
  const spineAt = elements(opf).findIndex(({ name }) => name === "spine");
  const isPage = (item: (typeof inOrder)[number]): item is NonNullable<typeof item> =>
    item !== undefined && isText(item) && files[item.path] !== undefined;
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
  const told = (name: string): string | null => {
    const one = childOf(metadata, name);
    return one ? textOf(one).trim() || null : null;
  };
  const about = { title: told("title"), author: told("creator"), language: told("language"), conventions };
  const all = [...items.values()];
  const navigation = all.find(({ isNavigation }) => isNavigation)?.path ?? null;
  const ncx = all.find(({ type }) => type === "application/x-dtbncx+xml")?.path ?? null;
  return { files, folder, pages, unread, allPages, navigation, ncx, about, ways };
}

/** What is read of an item: itself, or what it says is to be read in its place; null for neither. */
function instead(
  item: Item | undefined,
  items: ReadonlyMap<string, Item>,
  files: Readonly<Record<string, Uint8Array>>,
): Item | null {
  const tried = new Set<Item>();
  for (let one = item; one && !tried.has(one); one = items.get(one.fallback)) {
    if ((isText(one) || one.type === drawing) && files[one.path]) return one;
    tried.add(one);
  }
  return null;
}

/** Fonts may be told otherwise than they are; pages of text that are cannot be read (EPUB 3.3, 4.2.6.3.4). */
function refuseLocked(
  files: Readonly<Record<string, Uint8Array>>,
  folder: string,
  pages: readonly Item[],
): void {
  const text = (name: string): string => decodePage(files[`${folder}META-INF/${name}`] ?? new Uint8Array());
  const locked = [...text("encryption.xml").matchAll(/\bURI\s*=\s*["']([^"']*)["']/gi)].map(
    ([, uri]) => folder + percentDecoded(uri!),
  );
  if (text("rights.xml") + text("license.lcpl") !== "" || pages.some(({ path }) => locked.includes(path)))
    throw new ImportError(
      "format",
      "The pages of this e-book are locked by encryption, so that only some programs open it. Bring one without a lock.",
    );
}
