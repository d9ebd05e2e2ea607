import { SaxesParser } from "saxes";
import { Rubies } from "../arrival/rubies.ts";
import { isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { unpacked } from "../containers.ts";
import { decodePage } from "../text-encoding.ts";
import { UsualPrefixes } from "../usual-prefixes.ts";
import { FileLinks, lettersOf, type FileLink } from "../arrival/file-links.ts";

/** A field that is open: its instruction, and whether what it shows is read now. */
interface Field {
  instruction: string;
  isShown: boolean;
  isLink: boolean;
}

/** How far the reading is, and the bookmarks around signs of notes, as links name them. */
interface Progress {
  count: number;
  noteSigns: Set<string>;
  headingStyles: ReadonlySet<string>;
}

/** What is read besides the text, by the type by which the text names it, and in what that stands where it is no text. */
const kindOfPart = {
  footnotes: null,
  endnotes: null,
  header: "the head or foot of pages",
  footer: "the head or foot of pages",
  comments: "a comment",
};

/**
 * The links of a text document, part by part, as a parser that makes no tree tells them (ECMA-376-1, 17.16.22 and
 * 17.16.5.25). What stands in comments and on every page is told as apart.
 */
export function linksOfDocument(bytes: Uint8Array): FileLink[] {
  const files = unpacked(bytes, (path) => /\.(xml|rels)$/.test(path));
  const [text = "word/document.xml"] = partsOf(relatedTo(files, ""), "", "officeDocument");
  const ofText = relatedTo(files, text);
  const [styles = ""] = partsOf(ofText, text, "styles");
  const links = new FileLinks();
  const headingStyles = files[styles] ? stylesOfHeadings(decodePage(files[styles])) : new Set<string>();
  const paragraphs: Progress = { count: 0, noteSigns: new Set(), headingStyles };
  const read = (path: string, apart: string | null): void => {
    if (!files[path]) return;
    links.apart = apart;
    const related = path === text ? ofText : relatedTo(files, path);
    readPart(decodePage(files[path]), linksOfPart(related), links, paragraphs);
  };
  read(text, null);
  for (const [type, kind] of Object.entries(kindOfPart))
    for (const path of partsOf(ofText, text, type)) read(path, kind);
  // A field that tells a note's number again is a sign of that note.
  return links
    .all((fragment) => [fragment, fragment.toLowerCase()])
    .filter(({ href, words }) => lettersOf(words) !== "" || !paragraphs.noteSigns.has(href));
}

interface Related {
  id: string;
  /** The last word of its type. */
  type: string;
  target: string;
  isOutside: boolean;
}

/** What a part leads to. */
function relatedTo(files: Record<string, Uint8Array>, path: string): Related[] {
  const found: Related[] = [];
  const rels = files[path.replace(/([^/]*)$/, "_rels/$1.rels")];
  if (!rels) return found;
  const parser = new SaxesParser();
  parser.on("opentag", ({ attributes }) => {
    const { Id: id = "", Type = "", Target: target = "", TargetMode } = attributes as Record<string, string>;
    if (id !== "")
      found.push({ id, type: Type.split("/").at(-1)!, target, isOutside: TargetMode === "External" });
  });
  parser.write(decodePage(rels)).close();
  return found;
}

/** The parts to which a part leads by a type. */
function partsOf(related: readonly Related[], path: string, type: string): string[] {
  return related.flatMap((one) =>
    one.type === type && !one.isOutside ? [new URL(one.target, `part:///${path}`).pathname.slice(1)] : [],
  );
}

/** Where the links of a part lead, by the ids by which they say so. */
function linksOfPart(related: readonly Related[]): Map<string, string> {
  return new Map(related.map(({ id, target, isOutside }) => [id, isOutside ? target : `#${target}`]));
}

/** The styles of headings: those with a level of the outline, by themselves or by what they are based on (17.3.1.20, 17.7.4.3). */
function stylesOfHeadings(text: string): Set<string> {
  const levels = new Map<string, { isHeading: boolean; basedOn: string | null }>();
  let style = { isHeading: false, basedOn: null as string | null };
  const parser = new SaxesParser();
  const usual = new UsualPrefixes();
  parser.on("opentag", (tag) => {
    const { name, attributes } = usual.tag(tag);
    const { "w:val": value = "", "w:styleId": id = "" } = attributes;
    if (name === "w:style") levels.set(id, (style = { isHeading: false, basedOn: null }));
    if (name === "w:name" && /^heading [1-9]$/i.test(value)) style.isHeading = true;
    if (name === "w:outlineLvl" && Number(value) < 9) style.isHeading = true;
    if (name === "w:basedOn") style.basedOn = value;
  });
  parser.write(text).close();
  const isHeading = (id: string | null, deep = 0): boolean => {
    const found = id === null || deep > levels.size ? undefined : levels.get(id);
    return found !== undefined && (found.isHeading || isHeading(found.basedOn, deep + 1));
  };
  return new Set([...levels.keys()].filter((id) => isHeading(id)));
}

/** Elements whose content nobody reads. */
const unread = new Set(["w:del", "w:moveFrom", "mc:Fallback", "w:rPr", "w:pPr", "w:sectPr"]);

/** What is read apart: no field reaches over its ends. */
const apart = new Set(["w:tc", "w:txbxContent", "mc:Choice", "mc:Fallback", "w:del", "w:moveFrom"]);

/** Which of the marks of fields in a part, counted from one, begin a field that has no end. */
function endlessFields(text: string): Set<number> {
  const endless = new Set<number>();
  let depth = 0;
  let isEven = true;
  for (const [, kind] of text.matchAll(/fldCharType\s*=\s*["'](begin|end)["']/g)) {
    depth += kind === "begin" ? 1 : -1;
    isEven &&= depth >= 0;
  }
  // In nearly all documents each that begins ends.
  if (isEven && depth === 0) return endless;
  const begun: number[][] = [[]];
  const leave = (): void => begun.pop()!.forEach((mark) => endless.add(mark));
  let marks = 0;
  const usual = new UsualPrefixes();
  const parser = new SaxesParser();
  parser.on("opentag", (tag) => {
    const { name, attributes } = usual.tag(tag);
    if (apart.has(name)) begun.push([]);
    if (name !== "w:fldChar") return;
    marks += 1;
    if (attributes["w:fldCharType"] === "begin") begun.at(-1)!.push(marks);
    if (attributes["w:fldCharType"] === "end") begun.at(-1)!.pop();
  });
  parser.on("closetag", (tag) => {
    if (apart.has(usual.name(tag.name))) leave();
  });
  parser.write(text).close();
  leave();
  return endless;
}

function readPart(
  text: string,
  relationships: ReadonlyMap<string, string>,
  links: FileLinks,
  paragraphs: Progress,
): void {
  const fields: Field[] = [];
  const endless = endlessFields(text);
  let fieldMarks = 0;
  /** What was begun by each element that is open: a link, something unread, or nothing. */
  const open: ("link" | "unread" | "picture" | null)[] = [];
  let unreadDepth = 0;
  const bookmarks = new Map<string, string>();
  let isHidden = false;
  let font: string | undefined;
  const rubies = new Rubies((words) => links.text(words));
  let isMade = false;
  /** Whether what is read is how a paragraph was before it was changed. */
  let isFormer = false;
  let takes: "text" | "instruction" | null = null;
  const parser = new SaxesParser();
  const begin = (href: string, title: string | null, isJump = true): "link" => {
    links.begin(href, title, isJump);
    return "link";
  };
  const opens = (name: string, attributes: Record<string, string>): (typeof open)[number] => {
    if (unread.has(name)) return "unread";
    switch (name) {
      case "w:p":
        links.where = `paragraph ${++paragraphs.count}`;
        return null;
      case "w:hyperlink": {
        const to = relationships.get(attributes["r:id"] ?? "") ?? "";
        const place = attributes["w:anchor"] ?? attributes["w:docLocation"];
        const href = to + (place ? `#${place}` : "");
        return href === "" ? null : begin(href, attributes["w:tooltip"] ?? null);
      }
      case "w:fldSimple": {
        const href = hrefOfField(attributes["w:instr"] ?? "");
        return href ? begin(href.href, href.title, href.isJump) : null;
      }
      case "w:fldChar":
        fieldMark(attributes["w:fldCharType"] ?? "");
        return null;
      case "w:tag":
        // What a book of ours made by itself is made again.
        if (attributes["w:val"] === "vennet-made") isMade = true;
        return null;
      case "w:sdtContent": {
        const kind = isMade ? "unread" : null;
        isMade = false;
        return kind;
      }
      case "w:footnoteReference":
      case "w:endnoteReference":
        for (const bookmark of bookmarks.values()) paragraphs.noteSigns.add(`#${bookmark}`);
        return null;
      case "w:bookmarkEnd":
        bookmarks.delete(attributes["w:id"] ?? "");
        return null;
      case "w:bookmarkStart":
        bookmarks.set(attributes["w:id"] ?? "", attributes["w:name"] ?? "");
        links.place(attributes["w:name"]);
        links.place(attributes["w:name"]?.toLowerCase());
        return null;
      case "w:t":
      case "m:t":
        takes = "text";
        return null;
      case "w:instrText":
        takes = "instruction";
        return null;
      case "w:sym": {
        const sign = Number.parseInt(attributes["w:char"] ?? "", 16);
        if (sign > 0) links.text(symbolsOf(attributes["w:font"] ?? "", String.fromCharCode(sign)));
        return null;
      }
      case "w:noBreakHyphen":
        links.text("\u2011");
        return null;
      default:
        return null;
    }
  };
  const fieldMark = (kind: string): void => {
    if (kind === "begin" && !endless.has(fieldMarks))
      fields.push({ instruction: "", isShown: false, isLink: false });
    const field = fields.at(-1);
    if (kind === "separate" && field && !field.isShown) {
      field.isShown = true;
      const href = hrefOfField(field.instruction);
      field.isLink = href !== null && !links.leads(href.href);
      if (field.isLink) links.begin(href!.href, href!.title, href!.isJump);
    }
    if (kind === "end" && fields.pop()?.isLink) links.end();
  };
  const tellsHeading = (name: string, value: string): boolean =>
    (name === "w:pStyle" && paragraphs.headingStyles.has(value)) ||
    (name === "w:outlineLvl" && Number(value) < 9);
  const drawing = { href: null as string | null, title: null as string | null, alt: "", pictures: 0 };
  let isInFormula = false;
  const usual = new UsualPrefixes();
  parser.on("opentag", (tag) => {
    const { name, attributes } = usual.tag(tag);
    if (name === "w:rPr") isHidden = false;
    if (name === "w:vanish" && !/^(0|false|off)$/.test(attributes["w:val"] ?? "")) isHidden = true;
    if (name === "w:r") {
      isHidden = false;
      font = undefined;
    }
    rubies.begin(name.replace(/^w:/, ""));
    if (name === "w:rFonts") font = attributes["w:ascii"];
    if (name === "w:fldChar") fieldMarks += 1;
    if (unreadDepth > 0 && name === "w:bookmarkStart") links.place(attributes["w:name"]);
    if (name === "w:pPrChange") isFormer = true;
    if (!isFormer && tellsHeading(name, attributes["w:val"] ?? "")) links.beginHeading();
    // A place within a formula is the formula, as one in a heading is that.
    if (name === "m:oMath" && !links.isInHeading) {
      isInFormula = true;
      links.beginHeading();
    }
    const kind = unreadDepth > 0 ? null : opens(name, attributes);
    if (kind === "unread" || unreadDepth > 0) unreadDepth += 1;
    open.push(kind);
    if (unreadDepth > 0) return;
    if (name === "w:drawing" || name === "w:pict" || name === "w:object")
      Object.assign(drawing, { href: null, title: null, alt: "", pictures: 0 });
    if (/:(docPr|cNvPr|shape)$/.test(name) && drawing.alt === "")
      drawing.alt = attributes["descr"] ?? attributes["title"] ?? attributes["alt"] ?? "";
    if (/:hlinkClick$/.test(name)) {
      drawing.href ??= relationships.get(attributes["r:id"] ?? "") ?? null;
      drawing.title ??= attributes["tooltip"] ?? null;
    }
    if (/^v:(shape|rect)$/.test(name) && attributes["href"]) {
      drawing.href ??= attributes["href"];
      drawing.title ??= attributes["title"] ?? null;
    }
    if (/:(blip|imagedata)$/.test(name)) drawing.pictures += 1;
  });
  parser.on("text", (words) => {
    if (unreadDepth > 0) return;
    // What is said within the instruction of a field is a part of that.
    const asking = fields.findLast(({ isShown }) => !isShown);
    if (asking && takes !== null) asking.instruction += words;
    else if (takes === "text" && !isHidden) rubies.text(isSymbolFont(font) ? symbolsOf(font, words) : words);
  });
  parser.on("closetag", (tag) => {
    const name = usual.name(tag.name);
    const kind = open.pop();
    takes = null;
    if (name === "w:pPrChange") isFormer = false;
    rubies.end(name.replace(/^w:/, ""));
    if (name === "w:p" || (name === "m:oMath" && isInFormula)) {
      isInFormula = false;
      links.endHeading();
    }
    if (unreadDepth > 0) unreadDepth -= 1;
    if (kind === "link") links.end();
    if (unreadDepth > 0 || !/^w:(drawing|pict|object)$/.test(name)) return;
    // Programs give a picture's link twice: around it and on it.
    const isLink = drawing.href !== null && !links.leads(drawing.href);
    if (isLink) links.begin(drawing.href!, drawing.title);
    if (drawing.pictures > 0) links.picture(drawing.alt);
    if (isLink) links.end();
    Object.assign(drawing, { href: null, title: null, alt: "", pictures: 0 });
  });
  parser.write(text).close();
}

/** Where a field leads, or what it follows, be it a jump or not; null for any other. */
function hrefOfField(instruction: string): { href: string; title: string | null; isJump: boolean } | null {
  const [, kind = "", rest = ""] = /^\s*(\w+)\s*([\s\S]*)$/.exec(instruction) ?? [];
  const quotedOr = /"((?:[^"\\]|\\.)*)"|([^\s\\"]\S*)/.source;
  const valueOf = (flag: string): string | null => {
    const [, quoted, plain] = new RegExp(String.raw`\\${flag}\s+(?:${quotedOr})`, "i").exec(rest) ?? [];
    return quoted?.replace(/\\(["\\])/g, "$1") ?? plain ?? null;
  };
  const [, quoted, plain] = new RegExp(`^(?:${quotedOr})`).exec(rest) ?? [];
  const first = quoted?.replace(/\\(["\\])/g, "$1") ?? plain ?? "";
  if (/^(REF|PAGEREF|NOTEREF)$/i.test(kind))
    return first === "" ? null : { href: `#${first}`, title: null, isJump: /\\h(\s|$)/i.test(rest) };
  if (!/^HYPERLINK$/i.test(kind)) return null;
  const place = valueOf("l");
  const href = first + (place === null ? "" : `#${place}`);
  return href === "" ? null : { href, title: valueOf("o"), isJump: true };
}
