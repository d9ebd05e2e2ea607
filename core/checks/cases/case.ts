import { Node } from "prosemirror-model";
import { recognise } from "../../destination/recognise.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import type { Book, CompanionFile } from "../../manuscript/book.ts";
import { usualFonts } from "../../manuscript/book-fonts.ts";
import { defaultLooks } from "../../manuscript/looks.ts";
import { defaultConventions } from "../../manuscript/conventions.ts";
import type { LinkChange } from "../../manuscript/edit-links.ts";
import { linkUses } from "../../manuscript/links.ts";
import { schema } from "../../manuscript/schema.ts";
import { writeDestination } from "../../destination/destination.ts";
import { defaultLayout, textWidth } from "../../manuscript/page-layout.ts";
import { checkChapter, rules } from "../check-chapter.ts";
import type { CheckContext, Finding, KnownAnswer, ShareAudience } from "../finding.ts";
import type { PageOfFile } from "../page-of-file.ts";
import { contextIn, surroundingsOf } from "../surroundings.ts";
import type { ChapterRole } from "../../manuscript/chapter-role.ts";

/** A chapter by which a rule is judged, and what else is known of its book. */
export interface Case {
  /**
   * The chapter's text: paragraphs divided by an empty line; `## words {id}` is a heading; `[words](address)` a link,
   * `[words](<address>)` one with brackets or blanks in it, `[words](address "description")` a described one;
   * `![words](id)` a picture, which can stand in a link; `{{name}}` an anchor; `^id` a sign of a note, and `^id: words` one.
   */
  text: string;
  /** Blocks behind it that the notation has no signs for. */
  blocks?: readonly unknown[];
  /** Other chapters of the book, in the same notation. */
  beside?: readonly (string | { text: string; role: ChapterRole })[];
  /** What asking an address showed; of a name alone the state. */
  asked?: Record<string, KnownAnswer["state"] | Partial<KnownAnswer>>;
  files?: Record<string, CompanionFile>;
  shares?: Record<string, ShareAudience>;
  pictures?: Record<string, { width: number; height: number }>;
  audience?: string;
  language?: string;
  /** What the chapter is; a companion page has no number and may be unwritten. */
  role?: ChapterRole;
  describesAll?: boolean;
  /** What is known of its chapters where they are pages of a finished file. */
  pages?: readonly PageOfFile[];
  conventions?: Partial<Book["conventions"]>;
}

/** The labelled cases of one rule. A string is a chapter of which nothing else is known. */
export interface Cases {
  rule: string;
  /** From where they are, beside the rule’s own source. */
  source: string;
  /** Chapters in which the rule has to find something; with what its mend has to make of it, as one line. */
  wrong: readonly (string | Case | readonly [string | Case, mended: string | null])[];
  /** Near ones, in which it has to find nothing. */
  right: readonly (string | Case)[];
}

/** What a rule found in a case: its findings, and what the first one’s mend would make of its link. */
export interface Judged {
  findings: Finding[];
  mended: string | null;
}

/** The book of a case, whose first chapter is the one that is judged. */
export function bookOfCase(given: string | Case): Book {
  const one = caseOf(given);
  const chapters = [
    { text: one.text, role: one.role ?? "chapter", blocks: one.blocks ?? [] },
    ...(one.beside ?? []).map((beside) =>
      typeof beside === "string"
        ? { text: beside, role: "chapter" as const, blocks: [] }
        : { ...beside, blocks: [] },
    ),
  ];
  return {
    id: "00000000-0000-4000-8000-000000000000",
    title: "The Causeways",
    author: "Orla Pell",
    language: one.language ?? "en",
    modified: "2026-01-01T00:00:00.000Z",
    chapters: chapters.map(({ text, role, blocks }, i) => ({
      id: `c${i}`,
      role,
      doc: chapterOf(text, blocks, i),
    })),
    pictures: [],
    files: new Map(Object.entries(one.files ?? {})),
    fileBytes: new Map(),
    leavesFiles: false,
    looks: defaultLooks,
    conventions: { ...defaultConventions, ...one.conventions },
    layout: defaultLayout,
    fonts: usualFonts,
    fontFaces: [],
  };
}

function caseOf(given: string | Case): Case {
  return typeof given === "string" ? { text: given } : given;
}

/** Puts one rule to one case. */
export function judge(rule: string, given: string | Case): Judged {
  const one = caseOf(given);
  const book = bookOfCase(one);
  const { doc } = book.chapters[0]!;
  const context: CheckContext = contextIn(
    surroundingsOf(book, {
      answers: new Map(
        Object.entries(one.asked ?? {}).map(([address, known]) => [address, knownAnswer(known)]),
      ),
      shares: new Map(Object.entries(one.shares ?? {})),
      audience: one.audience ?? "anyone",
      pictureSizes: new Map(Object.entries(one.pictures ?? {})),
      ...(one.describesAll ? { describesAll: true } : {}),
      ...(one.pages ? { pages: one.pages } : {}),
    }),
    0,
  );
  const findings = checkChapter(
    doc,
    context,
    rules.filter(({ id }) => id === rule),
  );
  const [first] = findings;
  const link = first && linkUses(doc).find(({ id }) => id === first.subject);
  return { findings, mended: link && first.mend ? writeChange(first.mend, link.text) : null };
}

/** The width of the text in CSS px, for what cases say of pictures. */
export const widthOfText = textWidth(defaultLayout);

/** What is known of a destination; of a state alone, all else as usual. */
export function knownAnswer(known: KnownAnswer["state"] | Partial<KnownAnswer>): KnownAnswer {
  const given = typeof known === "string" ? { state: known } : known;
  return {
    state: "sound",
    code: "ok",
    reason: "It is so.",
    movedTo: null,
    title: null,
    secure: null,
    endsAt: null,
    type: null,
    certificateEnds: null,
    change: null,
    lookedAt: null,
    keptCopy: null,
    ...given,
  };
}

/** What a change makes of a link, as one line. @param words the link’s words before it */
export function writeChange(change: LinkChange, words: string): string {
  if (change.trim) return words.trim();
  if (change.destination) return writeDestination(change.destination);
  if (change.text !== undefined) return change.text;
  if (change.inStructure) return "in the structure";
  if (change.look !== undefined) return "the look of its kind";
  return change.description === null ? "no description" : (change.description ?? words);
}

function chapterOf(text: string, blocks: readonly unknown[], number: number): Node {
  const serials = new Map<string, number>();
  const id = (letter: string): string => {
    const serial = serials.get(letter) ?? 0;
    serials.set(letter, serial + 1);
    return `${letter}${number}-${serial}`;
  };
  const read = text
    .split(/\n\n+/)
    .filter(Boolean)
    .map((block): Node => {
      const heading = /^(#{2,5}) (.*?)(?: \{([\w-]+)\})?$/s.exec(block);
      if (heading)
        return schema.node(
          "heading",
          { id: heading[3] ?? id("h"), level: heading[1]!.length - 1 },
          inline(heading[2]!, id),
        );
      const note = /^\^([\w-]+): (.*)$/s.exec(block);
      if (note)
        return schema.node("note", { id: note[1] }, [schema.node("paragraph", null, inline(note[2]!, id))]);
      return schema.node("paragraph", null, inline(block, id));
    });
  const more = blocks.map((json) => Node.fromJSON(schema, json as Parameters<typeof Node.fromJSON>[1]));
  const doc = schema.node("doc", null, [
    schema.node("title", { id: `title-${number}` }, [schema.text(`Chapter ${number + 1}`)]),
    ...read.filter(({ type }) => type.name !== "note"),
    ...more,
    ...read.filter(({ type }) => type.name === "note"),
  ]);
  doc.check();
  return doc;
}

const signs =
  /\[((?:!\[[^\]]*\]\([^)]*\)|\\.|[^\]\\])*)\]\((?:<([^>]*)>|([^\s)]*))(?: "([^"]*)")?\)|!\[([^\]]*)\]\(([^)]*)\)|\{\{([^}]*)\}\}|\^([\w-]+)/g;

function inline(text: string, id: (letter: string) => string): Node[] {
  const nodes: Node[] = [];
  let end = 0;
  const plain = (words: string): void => {
    if (words !== "") nodes.push(schema.text(words));
  };
  for (const found of text.matchAll(signs)) {
    plain(text.slice(end, found.index));
    end = found.index + found[0].length;
    const [, words, bracketed, bare, description, alt, file, anchor, note] = found;
    if (anchor !== undefined) nodes.push(schema.node("anchor", { id: id("a"), name: anchor }));
    else if (note !== undefined) nodes.push(schema.node("note_reference", { note }));
    else if (file !== undefined) nodes.push(schema.node("picture", { file, alt }));
    else {
      const destination = destinationOf(bracketed ?? bare ?? "");
      const mark = schema.mark("link", { id: id("l"), destination, description: description ?? null });
      for (const node of inline(words!.replace(/\\(.)/g, "$1"), id)) nodes.push(node.mark([mark]));
    }
  }
  plain(text.slice(end));
  return nodes;
}

/** Addresses as they are written, without what reading them would put right. */
function destinationOf(address: string): Destination {
  if (address.startsWith("#")) return { kind: "place", target: address.slice(1) };
  if (address.startsWith("mailto:")) return { kind: "email", address };
  if (address.startsWith("companion:")) {
    const [file = "", at] = address.slice("companion:".length).split("#");
    return { kind: "file", file, ...(at ? { at } : {}) };
  }
  if (address.startsWith("share:")) return { kind: "file", share: address.slice("share:".length) };
  if (/^https?:/.test(address)) return { kind: "web", address };
  if (address.startsWith("tel:")) return recognise(address).destination;
  return { kind: "file", path: address };
}
