import { percentDecoded } from "../../../destination/percent-decoded.ts";
import { treeInStretches } from "../../../markdown/tree-in-stretches.ts";
import type { Nodes, Parents } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { parseFragment } from "parse5";
import { gfm } from "micromark-extension-gfm";
import { fileBeside, hasScheme, openExport } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  likeAllOthers,
  ProofError,
  type ExportedLink,
  type ExportReading,
  type Fault,
  type FormatTraits,
} from "../../../proof/exported-link.ts";
import { landingLength } from "../../../proof/landing.ts";
import { LandingTexts } from "../../../proof/landing-texts.ts";

const blockTags: Partial<Record<Nodes["type"], string>> = {
  paragraph: "p",
  heading: "h1",
  tableCell: "td",
  listItem: "li",
  code: "pre",
};

/** What formulas are made of, and the attributes that change how they look (MathML Core, from memory). */
const mathElements =
  "mi mn mo ms mtext mspace mrow mfrac msqrt mroot mstyle mpadded mphantom merror msub msup msubsup munder mover munderover mmultiscripts mprescripts mtable mtr mtd".split(
    " ",
  );
const mathAttributes =
  "mathvariant stretchy accent accentunder linethickness columnalign width form lspace rspace largeop movablelimits displaystyle".split(
    " ",
  );

/** The elements of HTML that an export has, each with its attributes besides those that say something for coming back. */
const plainHtml: Readonly<Record<string, readonly string[]>> = {
  a: ["id", "href", "title"],
  br: [],
  span: ["lang", "class"],
  div: ["align"],
  dl: [],
  dt: [],
  dd: [],
  img: ["src", "alt", "width", "role"],
  sup: [],
  sub: [],
  u: [],
  ...Object.fromEntries(mathElements.map((name) => [name, mathAttributes])),
  math: ["xmlns", "display", "alttext"],
};
const shownHtml = 60;

/** An element of HTML that begins, with what it says; null for anything else. */
function beginningOf(html: string): { name: string; attributes: ReadonlyMap<string, string> } | null {
  const [node] = parseFragment(html).childNodes;
  if (!node || !("tagName" in node) || node.childNodes.length > 0) return null;
  return { name: node.tagName, attributes: new Map(node.attrs.map(({ name, value }) => [name, value])) };
}

function isPlain({ name, attributes }: NonNullable<ReturnType<typeof beginningOf>>): boolean {
  const allowed = plainHtml[name];
  return (
    allowed !== undefined &&
    [...attributes.keys()].every((one) => allowed.includes(one) || one.startsWith("data-"))
  );
}

const traits: FormatTraits = {
  isPaged: false,
  keepsRelative: true,
  hasOwnNotes: true,
  hasTitle: false,
  opensWindows: false,
  hasRoles: false,
};

/**
 * Reads every link out of exported Markdown, parsed as CommonMark with GFM says; places are its HTML anchors.
 * Footnotes need no links of their own there.
 * @throws ProofError where the file is not UTF-8
 */
export function readMarkdown(bytes: Uint8Array): ExportReading {
  const { main, beside } = openExport(bytes);
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(main);
  } catch {
    throw new ProofError("unreadable", "The Markdown file is not text in UTF-8.");
  }
  const landings = new LandingTexts();
  const found: { href: string; title: string | null; text: string; line: number; isInNote: boolean }[] = [];
  const marks: { identifier: string; line: number }[] = [];
  const notes = new Map<string, string>();
  const faults: Fault[] = [];
  let isInNote = false;
  /** The link in HTML that is open. */
  let open: (typeof found)[number] | null = null;
  const readHtml = (value: string, line: number): void => {
    const end = /^<\/([a-z]+)>$/.exec(value)?.[1];
    if (end === "a") open = null;
    if (end !== undefined && end in plainHtml) return;
    const begun = beginningOf(value);
    if (!begun || !isPlain(begun)) {
      faults.push({ where: `line ${line}`, what: `HTML does something here: ${value.slice(0, shownHtml)}` });
      return;
    }
    const { name, attributes } = begun;
    if (name === "img" && open) open.text += attributes.get("alt") ?? "";
    if (name !== "a") return;
    const [id, href] = [attributes.get("id"), attributes.get("href")];
    if (id !== undefined) {
      if (landings.found.has(id))
        faults.push({ where: `line ${line}`, what: `Two places have the name “${id}”.` });
      landings.open("a", id);
      landings.close();
    }
    if (href === undefined) return;
    open = { href, title: attributes.get("title") ?? null, text: "", line, isInNote };
    found.push(open);
  };
  const walk = (node: Nodes): void => {
    if (node.type === "html") return readHtml(node.value, node.position!.start.line);
    if (open && node.type === "image") open.text += node.alt ?? "";
    if (open && node.type === "break") open.text += " ";
    if (open && "value" in node) open.text += node.value;
    if (node.type === "link") {
      const { url, title, position } = node;
      found.push({
        href: url,
        title: title ?? null,
        text: wordsOf(node),
        line: position!.start.line,
        isInNote,
      });
    }
    if (node.type === "footnoteReference" && !isInNote)
      marks.push({ identifier: node.identifier, line: node.position!.start.line });
    if (node.type === "footnoteDefinition") {
      notes.set(node.identifier, foldBlanks(textIn(node)).slice(0, landingLength));
      isInNote = true;
    }
    const tag = blockTags[node.type];
    if (tag) landings.open(tag, null);
    if ("value" in node) landings.text(node.value);
    if ("children" in node) for (const child of node.children) walk(child);
    if (tag) landings.close();
    if (node.type === "footnoteDefinition") isInNote = false;
  };
  // What the book says of itself stands before its text.
  const body = text.replace(/^---\n[\s\S]*?\n---\n/, (about) => about.replace(/[^\n]/g, ""));
  // Their search for addresses in words would not heed what is escaped.
  const mdastExtensions = gfmFromMarkdown().map(({ transforms: _, ...extension }) => extension);
  walk(treeInStretches(body, (stretch) => fromMarkdown(stretch, { extensions: [gfm()], mdastExtensions })));
  const links = found.map(({ href, title, text: words, line, isInNote: isNoted }): ExportedLink => {
    const target = percentDecoded(href.replace(/^#/, ""));
    return {
      ...likeAllOthers,
      isInNote: isNoted,
      destination: href.startsWith("#")
        ? { kind: "place", target, landing: landings.found.get(target) ?? null }
        : hasScheme(href)
          ? { kind: "address", address: href }
          : fileBeside(href),
      text: foldBlanks(words),
      description: title,
      where: `line ${line}`,
      page: null,
      boxes: [],
      apparatus: false,
    };
  });
  return {
    traits,
    pages: null,
    files: beside,
    pageOfPlace: new Map(),
    links,
    pictures: new Map(),
    placesInOrder: [...landings.found.keys()],
    placesAside: new Set(),
    notes: marks.map(({ identifier, line }) => ({
      words: "",
      landing: notes.get(identifier) ?? null,
      leadsBack: true,
      where: `line ${line}`,
    })),
    lists: [],
    linkedPages: [],
    faults,
  };
}

/** All words of a note, links and lists among them. */
function textIn(node: Nodes): string {
  if (node.type === "html") return "";
  if ("value" in node) return node.value;
  return "children" in node ? node.children.map((child) => `${textIn(child)} `).join("") : "";
}

/** What a picture in HTML says, as one of a chosen width is written. */
function alternativeOf(html: string): string {
  const begun = beginningOf(html);
  return begun?.name === "img" ? (begun.attributes.get("alt") ?? "") : "";
}

function wordsOf(node: Parents): string {
  return node.children
    .map((child): string => {
      if (child.type === "image") return child.alt ?? "";
      if (child.type === "break") return " ";
      if (child.type === "html") return alternativeOf(child.value);
      if ("value" in child) return child.value;
      return "children" in child ? wordsOf(child) : "";
    })
    .join("");
}
