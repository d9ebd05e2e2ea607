import { SaxesParser, type SaxesTagPlain } from "saxes";
import { isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { unpacked } from "../containers.ts";
import { decodePage } from "../text-encoding.ts";
import { mimetypeOfFlat, shownOfFlat } from "./flat-document.ts";
import { UsualPrefixes } from "../usual-prefixes.ts";
import { FileLinks, lettersOf, type FileLink } from "../arrival/file-links.ts";
import { Rubies } from "../arrival/rubies.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";

const references = /^text:(bookmark-ref|reference-ref|note-ref|sequence-ref)$/;
const places = /^text:(bookmark|bookmark-start|reference-mark|reference-mark-start)$/;
const partsOfRuby: Record<string, string> = { "text:ruby": "ruby", "text:ruby-text": "rt" };
const unread = new Set([
  "text:tracked-changes",
  "text:note-citation",
  "svg:title",
  "svg:desc",
  "dc:creator",
  "dc:date",
]);

function textOfOdt(bytes: Uint8Array): string {
  if (mimetypeOfFlat(bytes) !== "") return shownOfFlat(bytes);
  const { "content.xml": content } = unpacked(bytes, (path) => path === "content.xml");
  return content ? decodePage(content) : "";
}

/** The links of an OpenDocument text, as a parser that makes no tree tells them (OpenDocument 1.3, part 3, 6.1.8). */
export function linksOfOdt(bytes: Uint8Array): FileLink[] {
  const content = textOfOdt(bytes);
  const links = new FileLinks();
  const open: { name: string; isLink: boolean; words: string; style: string | undefined }[] = [];
  /** The fonts of symbols in which words of a style are. */
  const fonts = new Map<string | undefined, string>();
  let style: string | undefined;
  let paragraph = 0;
  let isFormula = false;
  let unreadDepth = 0;
  let heading: { words: string } | null = null;
  /** The title or description of the frame or area that is open. */
  const said: string[] = [];
  const rubies = new Rubies((words) => links.text(words));
  const parser = new SaxesParser();
  const usual = new UsualPrefixes();
  /** What notes say, which stands in the midst of the text that calls them, and is read behind all of it. */
  const notes: (() => void)[] = [];
  let isBehind = false;
  /** A place that is a note is where that is read. */
  const placeOfNote = (id: string | undefined): void => {
    const place = (): void => links.place(id);
    if (isBehind) place();
    else notes.push(place);
  };
  const opens = (tag: SaxesTagPlain): void => {
    const { name, attributes } = usual.tag(tag);
    // What a book of ours made by itself is made again.
    const isMade = /^vennet-made-/.test(attributes[name === "text:section" ? "text:name" : "xml:id"] ?? "");
    if (unreadDepth > 0 || unread.has(name) || isMade) unreadDepth += 1;
    let isLink = false;
    // The top of a book of ours stands in what it made by itself.
    if (places.test(name)) links.place(attributes["text:name"]);
    if (name === "text:note") placeOfNote(attributes["text:id"]);
    if (unreadDepth === 0) {
      if (name === "text:p" || name === "text:h") links.where = `paragraph ${++paragraph}`;
      if (name === "text:h") {
        heading = { words: "" };
        links.beginHeading();
      }
      if (name === "text:sequence") links.place(attributes["text:ref-name"]);
      if (name === "table:table") links.place(`${attributes["table:name"] ?? ""}|table`);
      if (name === "draw:frame") links.place(`${attributes["draw:name"] ?? ""}|graphic`);
      if (name === "text:section") links.place(`${attributes["text:name"] ?? ""}|region`);
      if (name === "office:annotation") links.apart = "a comment";
      const href = references.test(name)
        ? attributes["text:ref-name"] && `#${attributes["text:ref-name"]}`
        : /^(text:a|draw:a|draw:area-\w+)$/.test(name)
          ? (attributes["xlink:href"] ?? "").trim().replace(/^\.\.\/(?!\.\.\/)/, "")
          : "";
      if (href) {
        isLink = true;
        links.begin(
          href.startsWith("#") ? `#${percentDecoded(href.slice(1))}` : href,
          attributes["office:title"] ?? null,
        );
      }
      if (name === "draw:frame" || name.startsWith("draw:area-")) said.push(attributes["draw:name"] ?? "");
    }
    rubies.begin(partsOfRuby[name] ?? "");
    open.push({
      name,
      isLink,
      words: "",
      style: name === "text:span" ? attributes["text:style-name"] : undefined,
    });
    if (name === "style:style") style = attributes["style:name"];
    const font = attributes["style:font-name"] ?? attributes["fo:font-family"];
    if (name === "style:text-properties" && isSymbolFont(font)) fonts.set(style, font);
    if (name === "text:h") links.place(`at ${paragraph}`);
  };
  const reads = (words: string): void => {
    const at = open.at(-1);
    if (at) at.words += words;
    if (unreadDepth > 0 || !open.some(({ name }) => name === "text:p" || name === "text:h")) return;
    const font = fonts.get(at?.style);
    rubies.text(at?.style !== undefined && font ? symbolsOf(font, words) : words);
    if (heading) heading.words += words;
  };
  const closes = (tag: SaxesTagPlain): void => {
    const name = usual.name(tag.name);
    const closed = open.pop()!;
    rubies.end(partsOfRuby[name] ?? "");
    if (unreadDepth > 0) unreadDepth -= 1;
    // Descriptions come before titles in what is said to readers.
    if (name === "svg:desc" || (name === "svg:title" && said.at(-1) !== undefined)) {
      const words = closed.words.trim();
      if (words !== "") said[said.length - 1] = words;
    }
    if (name === "office:annotation") links.apart = null;
    // A formula is read by its words.
    if (name === "draw:object") isFormula = true;
    if (name === "draw:frame") {
      const words = said.pop() ?? "";
      if (isFormula) links.text(words);
      else links.picture(words);
      isFormula = false;
    }
    if (name.startsWith("draw:area-")) links.text(said.pop() ?? "");
    if (name === "text:h" && heading) {
      const letters = lettersOf(heading.words);
      if (letters !== "") headings.set(letters, headings.get(letters) ?? `at ${paragraph}`);
      heading = null;
      links.endHeading();
    }
    if (closed.isLink) links.end();
  };
  let depthInNote = 0;
  const inTurn = (read: () => void): unknown => (depthInNote > 0 ? notes.push(read) : read());
  parser.on("opentag", (tag) => {
    if (depthInNote > 0 || usual.name(tag.name) === "text:note-body") depthInNote += 1;
    inTurn(() => opens(tag));
  });
  parser.on("text", (words) => inTurn(() => reads(words)));
  parser.on("closetag", (tag) => {
    inTurn(() => closes(tag));
    if (depthInNote > 0) depthInNote -= 1;
  });
  const headings = new Map<string, string>();
  parser.write(content).close();
  isBehind = true;
  for (const read of notes) read();
  return links.all((fragment) => {
    const [, named] = /^(.*)\|outline$/s.exec(fragment) ?? [];
    return [fragment, headings.get(lettersOf(named ?? "")) ?? ""];
  });
}
