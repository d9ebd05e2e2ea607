import { strFromU8 } from "fflate";
import type { Element, Nodes, Root } from "hast";
import { toString } from "hast-util-to-string";
import type { PageLayout } from "../../manuscript/page-layout.ts";
import { lengthOf } from "../areas.ts";
import { mimetypeIn, unpacked } from "../containers.ts";
import { damaged, ImportError } from "../errors.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { allElements, becomeSign, element } from "../hast-nodes.ts";
import type { AboutManuscript, ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { conventionsOf } from "../hast-to-manuscript/carried.ts";
import { captionsOfTree } from "../captions-of-tree.ts";
import { listsOfContents, toldList } from "../lists-of-contents.ts";
import { layoutOfPages } from "../layout-of-pages.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { languageOfText } from "../other-language.ts";
import { decodePage } from "../text-encoding.ts";
import { childOf, elements, readXml, textOf, type XmlElement } from "../xml-tree.ts";
import { filesOfFlat, mimetypeOfFlat } from "./flat-document.ts";
import { OdtBlocks } from "./odt-blocks.ts";
import { OdtStyles } from "./odt-styles.ts";
import { linksOfOdt } from "./second-reading.ts";
import { OdtWords, type OdtReading } from "./odt-words.ts";

/** Text documents of OpenDocument (1.0 to 1.3), and their templates. */
export const odt: ManuscriptReader = {
  accepts: ({ bytes }) =>
    /^application\/vnd\.oasis\.opendocument\.text(-template)?$/.test(
      mimetypeIn(bytes) || mimetypeOfFlat(bytes),
    ),
  read: ({ bytes }) => readOdt(bytes),
  linksOf: ({ bytes }) => linksOfOdt(bytes),
};

/** @throws ImportError `format` where it cannot be unpacked, a part cannot be read, or is encrypted */
function readOdt(bytes: Uint8Array): ReadManuscript {
  const flat = mimetypeOfFlat(bytes) === "" ? null : filesOfFlat(bytes);
  const files = flat?.files ?? unpacked(bytes);
  const part = (path: string): XmlElement | null => {
    if (flat) return flat.root;
    const found = files[path];
    return found ? readXml(path, decodePage(found)) : null;
  };
  if (/<manifest:encryption-data\b/.test(strFromU8(files["META-INF/manifest.xml"] ?? new Uint8Array())))
    throw new ImportError(
      "format",
      "The document is locked by a password. Save it without one, and bring it again.",
    );
  const content = part("content.xml");
  const meta = childOf(part("meta.xml") ?? undefined, "meta");
  const body = childOf(childOf(content ?? undefined, "body"), "text");
  if (!body) throw damaged("The document has no part with its text in it.");
  const styles = new OdtStyles([part("styles.xml"), content]);
  const reading: OdtReading = {
    files,
    kept: keptIn(meta),
    styles,
    language: languageOf(meta) ?? languageOfText(styles.usualLanguages(), textOf(body)),
    pictures: new Map(),
    notes: [],
    leftOut: [],
    paragraph: 0,
  };
  const blocks = new OdtBlocks(reading, new OdtWords(reading));
  const children = blocks.blocks(body);
  // Notes may themselves have notes, so that the list grows while it is read.
  for (const { id, body: note } of reading.notes)
    children.push(element("note-body", { dataNote: id }, blocks.blocks(note), reading.paragraph));
  const tree: Root = { type: "root", children };
  raiseHeadings(tree);
  leadToHeadings(tree);
  signsAgain(tree, new Set(reading.notes.map(({ id }) => id)));
  withoutIdleSigns(tree, new Set(reading.notes.map(({ id }) => id)));
  captionsOfTree(tree);
  const whereOf = ({ position }: Nodes): string | null =>
    position ? `paragraph ${position.start.line}` : null;
  reading.leftOut.push(...listsOfContents(tree).map((list) => toldList(whereOf(list))));
  return {
    tree,
    about: { ...aboutOdt(meta, reading), layout: layoutOf(part("styles.xml")) },
    pictures: [...reading.pictures.values()],
    companions: [],
    leftOut: reading.leftOut,
    whereOf,
  };
}

/** A reference to a note is its sign once more. */
function signsAgain(tree: Root, notes: ReadonlySet<string>): void {
  for (const one of allElements(tree)) {
    const note = String(one.properties["href"]).slice(1);
    if (one.properties["dataReference"] === "note" && notes.has(note)) becomeSign(one, note);
  }
}

function languageOf(meta: XmlElement | undefined): string | null {
  const said = childOf(meta, "language");
  return said ? textOf(said).trim() || null : null;
}

/** The place at a note's sign is one only where something leads to it. */
function withoutIdleSigns(tree: Root, notes: ReadonlySet<string>): void {
  const all = allElements(tree);
  const wanted = new Set(all.map(({ properties }) => String(properties["href"] ?? "").slice(1)));
  for (const one of all)
    one.children = one.children.filter(
      (child) =>
        child.type !== "element" ||
        child.tagName !== "a" ||
        child.properties["href"] !== undefined ||
        !notes.has(String(child.properties["id"])) ||
        wanted.has(String(child.properties["id"])),
    );
}

/** What the document says of itself (OpenDocument 1.3, part 3, 4.3.2). */
function aboutOdt(meta: XmlElement | undefined, { kept, language }: OdtReading): AboutManuscript {
  const said = (name: string): string | null => {
    const one = childOf(meta, name);
    return one ? textOf(one).trim() || null : null;
  };
  return {
    title: said("title"),
    author: said("creator") ?? said("initial-creator"),
    language,
    conventions: conventionsOf(kept.get("vennet-counts")),
  };
}

/** How the usual pages are laid out (part 3, 16.5 and 16.9). */
function layoutOf(styles: XmlElement | null): PageLayout | null {
  const masters = elements(childOf(styles ?? undefined, "master-styles"));
  const usual = masters.find(({ attributes }) => attributes["name"] === "Standard") ?? masters[0];
  const layout = elements(childOf(styles ?? undefined, "automatic-styles")).find(
    ({ name, attributes }) =>
      name === "page-layout" && attributes["name"] === usual?.attributes["page-layout-name"],
  );
  const said = childOf(layout, "page-layout-properties")?.attributes;
  if (!said) return null;
  const inMm = (name: string): number => lengthOf(said[name] ?? said["margin"]) * 25.4;
  return layoutOfPages({
    width: inMm("page-width"),
    height: inMm("page-height"),
    left: inMm("margin-left"),
    right: inMm("margin-right"),
    top: inMm("margin-top"),
    bottom: inMm("margin-bottom"),
  });
}

/** What exports of ours say in properties of the document (part 3, 4.3.2.20), by name. */
function keptIn(meta: XmlElement | undefined): ReadonlyMap<string, string> {
  return new Map(
    elements(meta).flatMap((property): [string, string][] => {
      const { name = "" } = property.attributes;
      return property.name === "user-defined" && name.startsWith("vennet-") ? [[name, textOf(property)]] : [];
    }),
  );
}

/** Links to headings name them by their numbers and words, with a word behind (`#2.1.Low water|outline`). */
function leadToHeadings(tree: Root): void {
  const all = allElements(tree);
  const headings = new Map<string, Element>();
  for (const one of all) {
    const words = folded(toString(one));
    if (/^h[1-6]$/.test(one.tagName) && !headings.has(words)) headings.set(words, one);
  }
  let made = 0;
  for (const { tagName, properties } of all) {
    const href = properties["href"];
    if (tagName !== "a" || typeof href !== "string") continue;
    const [, named] = /^#(.*)\|outline$/s.exec(percentDecoded(href)) ?? [];
    if (named === undefined) {
      if (href.startsWith("#")) properties["href"] = `#${percentDecoded(href.slice(1))}`;
      continue;
    }
    const heading = headings.get(folded(named)) ?? headings.get(folded(named.replace(/^(\d+\.)+/, "")));
    if (!heading) continue;
    const id = String((heading.properties["id"] ??= `heading-${++made}|outline`));
    properties["href"] = `#${id}`;
  }
}

function folded(words: string): string {
  return words.replace(/\s+/g, " ").trim().toLowerCase();
}
