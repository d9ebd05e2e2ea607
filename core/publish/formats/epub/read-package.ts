import { percentDecoded } from "../../../destination/percent-decoded.ts";
import { strFromU8 } from "fflate";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { hasScheme } from "../../../proof/exported-folder.ts";
import { ProofError, type Fault } from "../../../proof/exported-link.ts";
import { FaultList } from "../../../proof/fault-list.ts";

export type ContainerFiles = Readonly<Record<string, Uint8Array>>;

/** A file that a package lists (EPUB 3.3, 5.6.2). */
interface Item {
  /** Where it is in the container. */
  path: string;
  isPage: boolean;
  properties: string[];
  fallback: string | null;
}

/** What the package of an e-book says of its files. */
export interface ReadPackage {
  /** Where the package document is. */
  path: string;
  /** The pages in their order. */
  spine: string[];
  /** Those of them to which nobody comes who reads on. */
  aside: ReadonlySet<string>;
  /** What else readers may be led to. */
  others: ReadonlySet<string>;
  faults: Fault[];
}

const pageType = "application/xhtml+xml";
const container = "META-INF/container.xml";
const elements = /^(package|metadata|meta|dc:[a-z]+|manifest|item|spine|itemref)$/;
const itemAttributes = new Set(["id", "href", "media-type", "properties", "fallback"]);
const spineAttributes = new Set(["page-progression-direction", "toc", "id"]);
/** Properties of a page that say what it holds; `scripted` and `remote-resources` are no book's. */
const itemProperties = new Set(["nav", "cover-image", "svg", "mathml"]);
/** What metadata say that is told and shown, and does not change how pages open (EPUB 3.3, 5.5; Accessibility 1.1). */
const telling = /^(dcterms:|schema:|a11y:|(source-of|title-type|file-as|role|display-seq|identifier-type)$)/;

/**
 * Reads of an e-book's container which pages it has, in which order, and what else it says of them that keeps readers from
 * them (EPUB 3.3, 4.2 and 5): all that it is not known to leave pages as they are.
 * @throws ProofError where the container or its package document cannot be read
 */
export function readPackage(bytes: Uint8Array, files: ContainerFiles): ReadPackage {
  const faults = new FaultList();
  const tell = faults.tell.bind(faults);
  // It stands first, is not compressed, and has nothing before or behind it (4.2.6.3).
  if (strFromU8(bytes.subarray(26, 58), true) !== "\b\0\0\0mimetypeapplication/epub+zip")
    tell("The container", "It does not begin by saying that it is an e-book.");
  for (const name of Object.keys(files))
    if (name.startsWith("META-INF/") && name !== container && !name.endsWith("/"))
      tell("The container", `“${name}” may keep readers from its files.`);

  const packages: string[] = [];
  parseXml(files, container, ({ name, attributes }) => {
    if (name === "rootfile") packages.push(attributes["full-path"] ?? "");
  });
  const [path] = packages;
  if (path === undefined)
    throw new ProofError("unreadable", `“${container}” in the e-book names no rootfile.`);
  if (packages.length > 1) tell("The container", "It holds more than one edition of the book.");

  const items = new Map<string, Item>();
  const order: { id: string; isAside: boolean }[] = [];
  parseXml(files, path, ({ name, attributes }) => {
    if (!elements.test(name)) tell(path, `“${name}” may keep readers from its pages.`);
    const property = attributes["property"];
    if (name === "meta" && property !== undefined && !telling.test(property))
      tell(path, `“${property}” may change how its pages open.`);
    if (name === "spine") judgeNames(attributes, spineAttributes, name);
    if (name === "item") addItem(attributes);
    if (name !== "itemref") return;
    judgeNames(attributes, new Set(["id", "idref", "linear"]), name);
    order.push({ id: attributes["idref"] ?? "", isAside: attributes["linear"] === "no" });
  });
  const inOrder = order.map(({ id, isAside }) => ({ id, isAside, item: items.get(id) ?? null }));
  judgeOrder();
  judgeFiles();
  const pathsOf = (isPage: boolean): string[] =>
    inOrder.flatMap(({ item }) => (item?.isPage === isPage ? [item.path] : []));
  return {
    path,
    spine: pathsOf(true),
    aside: new Set(inOrder.flatMap(({ item, isAside }) => (item && isAside ? [item.path] : []))),
    others: new Set(pathsOf(false)),
    faults: faults.all,
  };

  function judgeNames(attributes: Record<string, string>, known: ReadonlySet<string>, tag: string): void {
    for (const name of Object.keys(attributes))
      if (!known.has(name)) tell(path!, `“${name}” of “${tag}” may change how its pages open.`);
  }

  function addItem(attributes: Record<string, string>): void {
    const { id = "", href = "", properties = "", fallback = null } = attributes;
    judgeNames(attributes, itemAttributes, "item");
    if (items.has(id)) tell(path!, `Two of its files have the name “${id}”.`);
    if (hasScheme(href)) tell(path!, `“${href}” is not in it.`);
    items.set(id, {
      path: resolve(path!, href).file,
      isPage: attributes["media-type"] === pageType,
      properties: properties.split(/\s+/).filter(Boolean),
      fallback,
    });
  }

  function judgeOrder(): void {
    const seen = new Set<string>();
    for (const { id, item } of inOrder) {
      if (seen.has(id)) tell(path!, `“${id}” stands twice in the order of reading.`);
      seen.add(id);
      if (!item) tell(path!, `“${id}” is in the order of reading, and is no file of it.`);
      else if (!item.isPage && !items.get(item.fallback ?? "")?.isPage)
        tell(path!, `“${item.path}” is no page, and has none in its stead.`);
    }
  }

  function judgeFiles(): void {
    const all = [...items.values()];
    const listed = new Set([...all.map((item) => item.path), path!, "mimetype"]);
    for (const one of listed) if (!files[one] && one !== "mimetype") tell(path!, `“${one}” is not in it.`);
    for (const name of Object.keys(files))
      if (!listed.has(name) && !/^META-INF\/|\/$/.test(name)) tell(path!, `It does not list “${name}”.`);
    for (const { path: file, properties } of all)
      for (const property of properties)
        if (!itemProperties.has(property)) tell(path!, `“${file}” is said to be “${property}”.`);
    if (all.filter(({ properties }) => properties.includes("nav")).length !== 1)
      tell(path!, "It has not one list by which readers find the way.");
  }
}

/** What is told of the tags and letters of an XML file while it is read. */
export interface XmlEvents {
  onText?: (text: string) => void;
  onClose?: (tag: SaxesTagPlain) => void;
}

/**
 * Reads an XML file of the container from its first tag to its last.
 * @throws ProofError where it is not there, not well-formed, or would be read in another way than as UTF-8
 */
export function parseXml(
  files: ContainerFiles,
  path: string,
  onOpen: (tag: SaxesTagPlain) => void,
  more: XmlEvents = {},
): void {
  const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false, fileName: path } as { xmlns: false });
  const refuse = (why: string): never => {
    throw new ProofError("unreadable", `“${path}” in the e-book ${why}.`);
  };
  parser.on("error", (error) => refuse(`is not well-formed: ${error.message}`));
  parser.on("xmldecl", ({ encoding = "utf-8" }) => {
    if (encoding.toLowerCase() !== "utf-8") refuse(`is said to be written as “${encoding}”`);
  });
  parser.on("doctype", (type) => {
    if (type.includes("[")) refuse("has entities of its own");
  });
  parser.on("opentag", onOpen);
  parser.on("text", (text) => more.onText?.(text));
  parser.on("closetag", (tag) => more.onClose?.(tag));
  parser.write(textOf(files, path)).close();
}

/** @throws ProofError where the file is not there */
export function textOf(files: ContainerFiles, path: string): string {
  const bytes = files[path];
  if (!bytes) throw new ProofError("unreadable", `The e-book has no file “${path}”.`);
  return strFromU8(bytes);
}

/** Where an address in a file of the container leads. */
export function resolve(from: string, href: string): { file: string; fragment: string } {
  const url = new URL(href, `epub:///${from}`);
  return { file: percentDecoded(url.pathname.replace(/^\/+/, "")), fragment: url.hash.slice(1) };
}
