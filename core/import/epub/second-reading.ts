import { Parser } from "htmlparser2";
import { FileLinks, type FileLink } from "../arrival/file-links.ts";
import { fontOfElement, isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { Rubies } from "../arrival/rubies.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { unpacked } from "../containers.ts";
import { FileNames } from "../file-name.ts";
import { decodePage } from "../text-encoding.ts";
import { folderOfEpub } from "./folder-of-epub.ts";
import { isPageNumber } from "./page-number.ts";
import { withoutDocumentType, withoutNamedLetters } from "./named-letters.ts";
import { titlesOfContents } from "./second-contents.ts";

/** Files of a container in which no words are. */
const unread = /\.(png|jpe?g|gif|webp|avif|mp[34]|m4[av]|ogg|web[mv]|otf|ttf|woff2?|css|js|pdf)$/i;

/**
 * The links of an e-book, page by page in the order of its spine, as a parser tells them that forgives what is not
 * well-formed. Signs of notes and ways back from them are no links of the author's.
 */
export function linksOfEpub(bytes: Uint8Array): FileLink[] {
  const files = unpacked(bytes, (path) => !unread.test(path));
  const links = new FileLinks();
  const { pages, lists, isOurs } = publicationOf(files);
  const textOf = (path: string): string =>
    withoutNamedLetters(withoutDocumentType(decodePage(files[path] ?? new Uint8Array())));
  const texts = new Map([...pages, ...lists].map((path) => [path, textOf(path)]));
  const noteIds = notesIn(texts, pages);
  const names = new FileNames(pages);
  const titles = isOurs ? null : titlesOfContents(texts, pages, lists, pathFrom);
  for (const path of pages) {
    links.where = path;
    links.place(path);
    const title = titles?.get(path);
    if (title !== undefined) links.text(title);
    readPage(texts.get(path)!, { path, names, notes: noteIds, isOurs }, links);
  }
  return links.all((fragment) => [fragment, percentDecoded(fragment)]);
}

function pathFrom(file: string, href: string): string {
  if (!URL.canParse(href, `epub:///${file}`)) return "";
  const { pathname } = new URL(href.replace(/#.*$/s, ""), `epub:///${file}`);
  return percentDecoded(pathname.replace(/^\/+/, "").replace(/\/\/+/g, "/"));
}

/** What the package of an e-book says: its pages in their order, and the paths of its navigation and its NCX. */
function publicationOf(files: Record<string, Uint8Array>): {
  pages: string[];
  lists: string[];
  isOurs: boolean;
} {
  const tags = (path: string): [string, Record<string, string>][] => {
    const found: [string, Record<string, string>][] = [];
    const parser = new Parser(
      { onopentag: (name, attributes) => found.push([name.replace(/^.*:/, ""), attributes]) },
      { xmlMode: true },
    );
    parser.end(decodePage(files[path] ?? new Uint8Array()));
    return found;
  };
  const names = new FileNames(Object.keys(files));
  const folder = folderOfEpub(Object.keys(files)) ?? "";
  const rootfiles = tags(`${folder}META-INF/container.xml`).filter(([name]) => name === "rootfile");
  const [, said = {}] =
    rootfiles.find(([, { "media-type": type }]) => /oebps-package/.test(type ?? "")) ?? [];
  const rootfile = names.meant(folder + (said["full-path"] ?? rootfiles[0]?.[1]["full-path"] ?? "")) ?? "";
  const all = tags(rootfile);
  const items = new Map(
    all.flatMap(([name, item]) => (name === "item" ? [[item["id"] ?? "", item] as const] : [])),
  );
  const pathOf = (item: Record<string, string>): string => {
    const path = pathFrom(rootfile, item["href"] ?? "");
    return names.meant(path) ?? path;
  };
  const isNavigation = (item: Record<string, string>): boolean =>
    /(^|\s)nav(\s|$)/.test(item["properties"] ?? "");
  const isNcx = (item: Record<string, string>): boolean => item["media-type"] === "application/x-dtbncx+xml";
  const isRead = (item: Record<string, string>): boolean =>
    files[pathOf(item)] !== undefined &&
    (/html|svg|oeb1|dtbook/.test(item["media-type"] ?? "") || /\.x?html?$/i.test(item["href"] ?? ""));
  const isOurs = all.some(([name, { name: what }]) => name === "meta" && what === "vennet-counts");
  /** What is read for an item, which may name another in its place. */
  const readFor = (item: Record<string, string> | undefined, tries = items.size): string[] => {
    if (!item || tries < 0) return [];
    if (isRead(item)) return [pathOf(item)];
    return isOurs ? [] : readFor(items.get(item["fallback"] ?? ""), tries - 1);
  };
  const pages = all.flatMap(([name, { idref = "" }]) => {
    const item = name === "itemref" ? items.get(idref) : undefined;
    return !item || isNavigation(item) ? [] : readFor(item);
  });
  const one = (is: (item: Record<string, string>) => boolean): string[] =>
    [...items.values()].filter(is).slice(0, 1).map(pathOf);
  return { pages: [...new Set(pages)], lists: [...one(isNavigation), ...one(isNcx)], isOurs };
}

const isBody = (attributes: Record<string, string>): boolean =>
  /\b(footnote|endnote|rearnote)\b/.test(`${attributes["epub:type"] ?? ""} ${attributes["role"] ?? ""}`);
const isSign = (attributes: Record<string, string>): boolean =>
  /\bnoteref\b/.test(`${attributes["epub:type"] ?? ""} ${attributes["role"] ?? ""}`);
const isWayBack = (attributes: Record<string, string>): boolean =>
  /backlink/.test(`${attributes["epub:type"] ?? ""} ${attributes["role"] ?? ""}`);

const isHeading = (name: string): boolean => /^(.*:)?h[1-6]$/i.test(name);
const isPageBreak = (attributes: Record<string, string>): boolean =>
  /\bpagebreak\b/.test(`${attributes["epub:type"] ?? ""} ${attributes["role"] ?? ""}`);

/** The notes of all pages, each as its page and id. */
function notesIn(texts: ReadonlyMap<string, string>, pages: readonly string[]): Set<string> {
  const found = new Set<string>();
  for (const path of pages)
    new Parser(
      {
        onopentag: (_, attributes) => {
          if (isBody(attributes) && attributes["id"]) found.add(`${path}#${attributes["id"]}`);
        },
      },
      { xmlMode: true },
    ).end(texts.get(path)!);
  return found;
}

/** A page, with what is to be known of the e-book that it is in. */
interface PageInBook {
  path: string;
  names: FileNames;
  /** The notes of all pages, each as its page and id. */
  notes: ReadonlySet<string>;
  isOurs: boolean;
}

function readPage(text: string, { path, names, notes, isOurs }: PageInBook, links: FileLinks): void {
  /** What each open element began: a link, something that nobody reads, or nothing. */
  const open: ("link" | "unread" | "page" | null)[] = [];
  let unread = 0;
  /** The font that each open element gives its words. */
  const fonts: (string | null)[] = [];
  const rubies = new Rubies((words) => links.text(words));
  const opens = (name: string, attributes: Record<string, string>): (typeof open)[number] => {
    // What parts lines within an attribute are blanks (XML 1.0, 3.3.3).
    const href = (attributes["href"] ?? attributes["xlink:href"])?.replace(/[\t\r\n]/g, " ");
    if (/^(head|script|style|template|noscript)$/.test(name)) return "unread";
    if (attributes["id"]) links.place(`${path}#${attributes["id"]}`);
    if (name === "a" && attributes["name"]) links.oldName(`${path}#${attributes["name"]}`);
    // What a book of ours made by itself is made again.
    if (isOurs && attributes["data-made"] !== undefined) return "unread";
    if (isPageBreak(attributes) && href === undefined) return "page";
    if (name === "img") links.picture(attributes["alt"] ?? "");
    if (name === "image") links.picture(attributes["aria-label"] ?? "");
    if ((name !== "a" && name !== "area") || href === undefined) return null;
    const to = leadsTo(href);
    // The words of some headings lead back to their entry in contents.
    const isFromNote = isWayBack(attributes) && !links.isInHeading;
    if (isFromNote || (isSign(attributes) && notes.has(to.slice(1)))) return "unread";
    const isUnnamedArea = name === "area" && !attributes["alt"];
    links.begin(to, isUnnamedArea ? null : (attributes["title"] ?? attributes["xlink:title"] ?? null));
    if (name === "area") links.text(attributes["alt"] || attributes["title"] || href);
    return "link";
  };
  const leadsTo = (href: string): string => {
    if (/^[a-z][a-z0-9+.-]*:/i.test(href)) return href;
    const to = href.startsWith("#") ? path : names.meant(pathFrom(path, href));
    const [fragment] = /#.+$/s.exec(href) ?? [""];
    return to !== null ? `#${to}${fragment && `#${percentDecoded(fragment.slice(1))}`}` : href;
  };
  const parser = new Parser(
    {
      onopentag: (name, attributes) => {
        if (unread > 0 && attributes["id"]) links.place(`${path}#${attributes["id"]}`);
        if (isHeading(name)) links.beginHeading();
        if (name === "pre") links.beginListing();
        rubies.begin(name);
        fonts.push(fontOfElement(name, attributes["style"], attributes["face"]));
        const kind = unread > 0 ? null : opens(name.replace(/^.*:/, "").toLowerCase(), attributes);
        if (kind === "unread" || unread > 0) unread += 1;
        open.push(kind);
      },
      ontext: (words) => {
        // The number of a page of print is the name of an anchor in the book.
        const isNumber = !isOurs && open.includes("page") && isPageNumber(words);
        const font = fonts.findLast((one) => one !== null);
        const isInSymbols = isSymbolFont(font);
        if (unread === 0 && !isNumber) rubies.text(isInSymbols ? symbolsOf(font, words) : words);
      },
      onclosetag: (name) => {
        rubies.end(name);
        fonts.pop();
        if (isHeading(name)) links.endHeading();
        if (name === "pre") links.endListing();
        if (unread > 0) unread -= 1;
        if (open.pop() === "link") links.end();
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.end(text);
}
