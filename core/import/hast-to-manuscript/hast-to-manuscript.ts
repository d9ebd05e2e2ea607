import type { Element, ElementContent, Root, RootContent } from "hast";
import { toString } from "hast-util-to-string";
import { Fragment, type Mark, type Node } from "prosemirror-model";
import { isChapterRole, type ChapterRole } from "../../manuscript/chapter-role.ts";
import { linkUses } from "../../manuscript/links.ts";
import { newId } from "../../manuscript/ids.ts";
import { schema } from "../../manuscript/schema.ts";
import { allElements } from "../hast-nodes.ts";
import type { LeftOut } from "../left-out.ts";
import { clip } from "./blanks.ts";
import { withCaptionsOfTheirTables } from "./captions-above.ts";
import { signpostsOfElement, type Follows } from "./carried.ts";
import { alignedAs, alignWithin, BlocksOfTree, type LineAlign } from "./blocks-of-tree.ts";
import { blocks, wrappers } from "./elements.ts";
import { FileReading, type TreeOptions } from "./file-reading.ts";
import { semanticsOf } from "../semantics.ts";
import { beginsPage, setOffOfElement } from "./set-off-of-tree.ts";
import { IdleAnchors } from "./idle-anchors.ts";
import { inLanguage, languageMark } from "./language-of-tree.ts";

/** What a tree became. */
export interface ManuscriptOfTree {
  /** The words of the first level-1 heading, or the fallback title. */
  title: string;
  /** One valid document a chapter. */
  chapters: Node[];
  /** Of each chapter, whether it is one of the reading order. */
  roles: ChapterRole[];
  /** How links follow their targets, by the links' ids. */
  follows: ReadonlyMap<string, Follows>;
  /** In the order of the file. */
  leftOut: LeftOut[];
}

/**
 * Makes a manuscript of a tree of HTML, whichever file it was read from. A level-1 heading begins a chapter. Every link
 * arrives; whatever has no place in a manuscript keeps its words and is listed.
 */
export function hastToManuscript(tree: Root, options: TreeOptions): ManuscriptOfTree {
  return new ManuscriptBuilder(options).build(tree);
}

/** Whether an element only wraps what is in it, which may be chapters. */
function isWrapper(element: Element): boolean {
  const { tagName, properties } = element;
  if (!wrappers.has(tagName) || tagName === "figure" || tagName === "dl") return false;
  return (
    signpostsOfElement(element) === null &&
    setOffOfElement(element) === null &&
    properties["dataPart"] === undefined
  );
}

/** What a heading begins: as exports or readers say it, or as the section does that it is the title of. */
function roleOf(heading: Element, ofSections: ReadonlyMap<Element, ChapterRole>): ChapterRole {
  const said = [heading, ...allElements(heading)].map(({ properties }) => properties["dataRole"]);
  return said.find(isChapterRole) ?? ofSections.get(heading) ?? "chapter";
}

/** Sections that books give no number (common practice), by their roles and types (DPUB-ARIA 1.1, EPUB SSV 1.1). */
const unnumbered =
  /^(doc-)?(preface|foreword|prologue|dedication|acknowledge?ments|afterword|epilogue|colophon)$/;

/** What a section says that its title begins; null where it says nothing of the kind. */
function roleOfSection(section: Element): ChapterRole | null {
  const said = semanticsOf(section);
  if (said.some((one) => one === "part" || one === "doc-part")) return "part";
  return said.some((one) => unnumbered.test(one)) ? "unnumbered" : null;
}

/** The title of a section: its first element, or in the header that is. */
function titleOfSection(section: Element): Element | null {
  const first = (element: Element): Element | null => {
    const inside = element.children.find((child): child is Element => child.type === "element");
    if (inside?.tagName === "h1") return inside;
    return inside && /^(header|hgroup|div)$/.test(inside.tagName) ? first(inside) : null;
  };
  return first(section);
}

interface Draft {
  role: ChapterRole;
  title: Node;
  blocks: Node[];
}

class ManuscriptBuilder {
  private readonly reading: FileReading;
  private readonly blocks: BlocksOfTree;
  private readonly drafts: Draft[] = [];
  private readonly notesElsewhere = new Set<string>();
  /** What the titles of sections begin, where that is not a chapter like any other. */
  private readonly ofSections = new Map<Element, ChapterRole>();
  /** Paragraphs of nothing but anchors at the ends of pages. */
  private readonly endsOfPages = new Set<Node>();
  private beforeHeadings: Draft | undefined;
  private firstHeading = "";

  constructor(options: TreeOptions) {
    this.reading = new FileReading(options);
    this.blocks = new BlocksOfTree(this.reading);
  }

  build(root: Root): ManuscriptOfTree {
    const { fallbackTitle } = this.reading.options;
    this.chapterBlocks(root.children);
    this.settle();
    if (this.drafts.length === 0) this.begin([schema.text(fallbackTitle)]);
    // A text without headings is a chapter like any other.
    if (this.drafts.length === 1 && !this.firstHeading) this.drafts[0]!.role = "chapter";
    const chapters = this.drafts.map((draft) => this.finish(draft));
    this.listDeadPlaces(chapters);
    const told = this.reading.leftOut.sort((a, b) => a.order - b.order || 0);
    return {
      title: this.firstHeading || fallbackTitle,
      chapters,
      roles: this.drafts.map(({ role }) => role),
      follows: this.reading.follows,
      leftOut: told.map(({ order: _, ...one }) => one),
    };
  }

  /** @param align how what is around these aligns them */
  private chapterBlocks(
    children: RootContent[],
    language: Mark | null = null,
    align: LineAlign = null,
  ): void {
    let loose: ElementContent[] = [];
    const flush = (): void => {
      const paragraph = this.blocks.paragraph(loose);
      loose = [];
      if (paragraph) this.current().blocks.push(...alignedAs(align, inLanguage([paragraph], language)));
    };
    for (const child of children) {
      if (child.type === "element" && child.tagName === "h1") {
        flush();
        const id = this.reading.places.headingPlace(child);
        const title = this.blocks.headingWords(child, id);
        this.begin(title, id, roleOf(child, this.ofSections));
        this.firstHeading ||= toString(child).trim();
      } else if (child.type === "element" && isWrapper(child)) {
        flush();
        const role = roleOfSection(child);
        const title = role && titleOfSection(child);
        if (title) this.ofSections.set(title, role);
        this.chapterBlocks(child.children, languageMark(child) ?? language, alignWithin(child, align));
        const last = this.drafts.at(-1)?.blocks.at(-1);
        if (child.properties["dataPage"] === true && last) this.endsOfPages.add(last);
      } else if (child.type === "element" && blocks.has(child.tagName)) {
        flush();
        const made = alignedAs(
          alignWithin(child, align),
          inLanguage(this.blocks.block(child), languageMark(child) ?? language),
        );
        // A chapter begins a page by itself.
        if (beginsPage(child) && this.drafts.length > 0 && this.current().blocks.length > 0)
          this.current().blocks.push(schema.node("page_break"));
        if (made.length > 0) this.current().blocks.push(...made);
      } else if (child.type === "element" || child.type === "text") {
        loose.push(child);
      }
    }
    flush();
  }

  /** Puts what stands beside what it belongs to where it is known for that: anchors at the end of a chapter begin the next. */
  private settle(): void {
    const { places, ownAnchors, captionsAbove, noteBodies } = this.reading;
    const isOwn = ({ attrs }: Node): boolean => ownAnchors.has(attrs["id"] as string);
    const anchors = new IdleAnchors(places, isOwn, this.endsOfPages);
    let open: Node[] = [];
    for (const draft of this.drafts) {
      anchors.begun(draft.title, open);
      ({ blocks: draft.blocks, open } = anchors.joined(draft.blocks));
    }
    if (open.length > 0) this.current().blocks.push(schema.node("paragraph", null, open));
    for (const draft of this.drafts) draft.blocks = withCaptionsOfTheirTables(draft.blocks, captionsAbove);
    for (const [name, body] of noteBodies)
      noteBodies.set(name, withCaptionsOfTheirTables(anchors.joinedToTheEnd(body), captionsAbove));
    // What stood before all headings may have been nothing but anchors.
    if (this.drafts.length > 1 && this.beforeHeadings?.blocks.length === 0) this.drafts.shift();
  }

  private begin(title: Node[], id = newId(), role: ChapterRole = "chapter"): void {
    this.drafts.push({ role, title: schema.node("title", { id }, title), blocks: [] });
  }

  private current(): Draft {
    // What stands before all headings is counted by no file.
    if (this.drafts.length === 0) {
      this.begin([schema.text(this.reading.options.fallbackTitle)], newId(), "unnumbered");
      this.beforeHeadings = this.drafts[0];
    }
    return this.drafts.at(-1)!;
  }

  private finish(draft: Draft): Node {
    const content = draft.blocks.length > 0 ? draft.blocks : [schema.node("paragraph")];
    const called = new Set<string>();
    const collect = (node: Node): void => {
      if (node.type.name === "note_reference") called.add(node.attrs["note"] as string);
    };
    for (const block of content) {
      collect(block);
      block.descendants(collect);
    }
    draft.title.descendants(collect);
    const notes: Node[] = [];
    // A note may itself refer to a note, so the set grows while it is walked.
    for (const id of called) {
      const name = this.reading.noteName(id);
      const body = this.reading.noteBodies.get(name);
      if (!body) continue;
      this.reading.noteBodies.delete(name);
      const note = schema.node("note", { id }, body);
      note.descendants(collect);
      notes.push(note);
    }
    if (draft === this.drafts.at(-1)) {
      for (const [name, body] of this.reading.noteBodies)
        notes.push(schema.node("note", { id: this.reading.noteId(name) }, body));
    }
    for (const note of notes) this.notesElsewhere.add(note.attrs["id"] as string);
    const own = new Set(notes.map((note) => note.attrs["id"] as string));
    const resolved = [draft.title, ...content, ...notes].map((node) =>
      this.reading.places.resolved(this.withNumbersOfOthers(node, own)),
    );
    const doc = schema.node("doc", null, resolved);
    doc.check();
    return doc;
  }

  /** A note belongs to one chapter: what calls it in another tells its number, and leads there. */
  private withNumbersOfOthers(node: Node, own: ReadonlySet<string>): Node {
    const note = node.attrs["note"] as unknown;
    if (node.type.name === "note_reference" && typeof note === "string" && !own.has(note)) {
      if (!this.notesElsewhere.has(note)) return node;
      const attrs = { id: newId(), target: note, form: "number", fallback: "number" };
      return schema.node("cross_reference", attrs, undefined, node.marks);
    }
    if (node.isLeaf) return node;
    return node.copy(Fragment.from(node.children.map((child) => this.withNumbersOfOthers(child, own))));
  }

  private listDeadPlaces(chapters: Node[]): void {
    const ids = this.reading.places.given();
    for (const draft of this.drafts) ids.add(draft.title.attrs["id"] as string);
    for (const { id, destination, text } of chapters.flatMap((doc) => linkUses(doc))) {
      if (destination.kind !== "place" || ids.has(destination.target)) continue;
      const node = this.reading.linkNodes.get(id);
      const said = node?.type === "element" ? node.properties["href"] : undefined;
      this.reading.tell(
        node,
        "Links to places that the file does not have",
        `The link “${clip(text)}” to #${clip(destination.target)}`,
        "It is kept, but the file has no such place.",
        typeof said === "string" ? said : `#${destination.target}`,
      );
    }
  }
}
