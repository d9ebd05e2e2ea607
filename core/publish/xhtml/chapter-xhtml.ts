import type { Node } from "prosemirror-model";
import type { CaptionedBlock } from "../../manuscript/captions.ts";
import { runText, type InlineRun } from "../../manuscript/links.ts";
import { referenceId, type NumberedNote } from "../../manuscript/notes.ts";
import { gapSign } from "../../manuscript/references.ts";
import {
  captionAttrs,
  pictureAttrs,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../../manuscript/attributes.ts";
import { nested, signpostsOf, type ReturnLink, type SignpostBranch } from "../../manuscript/signposts.ts";
import { countHeadRows } from "../../manuscript/tables.ts";
import { ChapterWalk, type BlockHandlers, type InlineHandlers } from "../../manuscript/walk.ts";
import type { ByWordMark, WordMark } from "../../manuscript/word-marks.ts";
import { returnName } from "../../manuscript/return-name.ts";
import { asAttributes, saidOfList, saidOfLook } from "../said-for-coming-back.ts";
import { lookClass } from "../book-style.ts";
import type { MathElement } from "../../manuscript/math.ts";
import type { SetOff } from "../../manuscript/set-off.ts";
import { taskSign } from "../task-sign.ts";
import { attributeXml, escapeXml } from "./escape-xml.ts";
import { mathXhtml } from "./math-xhtml.ts";
import { PageMarks } from "./page-marks.ts";
import { hrefOf, hrefOfPlace, hrefTo, linkId, type PageContext } from "./page-context.ts";
import { pictureXhtml } from "./picture-xhtml.ts";

/** The element for each kind of block that is set off, and the role that tells it from others. */
const setOffElements: Readonly<Record<SetOff, [element: string, role: string | null]>> = {
  quotation: ["blockquote", null],
  verse: ["div", null],
  epigraph: ["blockquote", "doc-epigraph"],
  notice: ["div", "note"],
};

/** The XHTML of one chapter: a section, with its notes at the end unless they stand at the book's end. */
export function chapterXhtml(doc: Node, context: PageContext): string {
  return new XhtmlWalk(doc, context).section();
}

/** The XHTML of one chapter's notes, for the end of the book; empty where it has none. */
export function notesXhtml(doc: Node, context: PageContext): string {
  return new XhtmlWalk(doc, context).noteSection();
}

class XhtmlWalk extends ChapterWalk<string, string, void> {
  private readonly pages: PageMarks;
  private isInNotes = false;
  /** What stands before the words of the item that is written; none once they have begun. */
  private sign = "";
  /** How many lists and tables around what is written are turned round. */
  private turnedAround = 0;

  private readonly wordElements: ByWordMark<string> = {
    strong: "strong",
    emphasis: "em",
    // A listing's signs keep their order among words from right to left.
    code: this.index.direction === "rtl" ? 'code dir="ltr"' : "code",
    superscript: "sup",
    subscript: "sub",
    strike: "s",
    underline: "u",
    small_caps: 'span class="small-caps"',
  };

  protected readonly blockHandlers: BlockHandlers<string, void> = {
    title: (node) => [this.heading(node, 0)],
    heading: (node) => [this.heading(node, node.attrs["level"] as number)],
    paragraph: (node) => {
      const align = node.attrs["align"] as string | null;
      return [`<p${align ? ` class="${align}"` : ""}${this.dir(node)}>${this.words(node)}</p>`];
    },
    blockquote: (node) => [this.setOff(node)],
    code_block: (node) => {
      const language = node.attrs["language"] as string | null;
      const name = language === null ? "" : ` class="language-${escapeXml(language)}"`;
      return [`<pre${this.dir(node)}><code${name}>${this.words(node)}</code></pre>`];
    },
    bullet_list: (node) => {
      const tasks = node.children.every((item) => item.attrs["done"] !== null) ? ' class="tasks"' : "";
      return [`<ul${tasks}${this.dir(node)}>${this.inside(node, () => this.items(node))}</ul>`];
    },
    ordered_list: (node) => {
      const start = node.attrs["start"] as number;
      return [
        `<ol${this.dir(node)}${start === 1 ? "" : ` start="${start}"`}>${this.inside(node, () => this.items(node))}</ol>`,
      ];
    },
    definition_list: (node) => [
      `<dl>${node.children.map((part) => this.definitionPart(part)).join("")}</dl>`,
    ],
    table: (node) => [this.table(node)],
    page_break: () => ['<div class="page-break" data-part="page-break"></div>'],
    section_break: () => ["<hr/>"],
    caption: (node) => [
      `<p class="caption" data-caption="${captionAttrs(node).of}"${this.dir(node)}${this.id(node)}>${this.captionWords(node)}</p>`,
    ],
    credit: (node) => [`<p class="credit" data-part="credit"${this.dir(node)}>${this.words(node)}</p>`],
    signposts: (node) => [this.signposts(node)],
  };

  protected readonly inlineHandlers: InlineHandlers<string, void> = {
    text: (node) => {
      let text = this.isInNotes ? escapeXml(node.text!) : this.pages.inText(node.text!);
      for (const mark of [...node.marks].reverse()) {
        if (mark.type.name === "language") text = this.inLanguage(mark.attrs["tag"] as string, text);
        else if (mark.type.name in this.wordElements) {
          const element = this.wordElements[mark.type.name as WordMark];
          text = `<${element}>${text}</${element.split(" ")[0]}>`;
        }
      }
      return [text];
    },
    hard_break: () => ["<br/>"],
    picture: (node) => [pictureXhtml(pictureAttrs(node), null, this.context)],
    formula: (node) => {
      this.context.holds.add("mathml");
      return [mathXhtml(node.attrs["math"] as MathElement, node.attrs["display"] as boolean)];
    },
    anchor: (node) => [
      `<span${this.id(node)} data-anchor="${escapeXml(node.attrs["name"] as string)}"></span>`,
    ],
    cross_reference: (node) => {
      const { id, target, form, fallback } = referenceAttrs(node);
      const says = this.wordsOfReference(node, false);
      if (says.kind !== "words") return [`<span class="gap">${gapSign}</span>`];
      const href = hrefOfPlace(this.context, this.index.places.get(target)!);
      const follows = ` data-reference="${form}"${fallback === "text" ? "" : ` data-fallback="${fallback}"`}`;
      return [
        `<a class="place" href="${href}"${follows}${linkId(this.context, id)}>${escapeXml(says.words)}</a>`,
      ];
    },
    note_reference: (node) => {
      const id = node.attrs["note"] as string;
      const note = this.index.places.get(id);
      if (!note || !this.notes.has(id)) return [`<sup class="gap">${gapSign}</sup>`];
      const href = hrefOfPlace(this.context, note);
      return [
        `<sup><a${this.epubType("noteref")} role="doc-noteref" href="${href}" id="${referenceId(id, this.nextReference(id))}">${note.number}</a></sup>`,
      ];
    },
  };

  constructor(
    doc: Node,
    private readonly context: PageContext,
  ) {
    super({ doc, at: context.chapter, index: context.index });
    this.pages = new PageMarks(context);
  }

  section(): string {
    const body = this.body().join("\n");
    const notes = this.index.conventions.notesAt === "book" ? "" : this.noteSection();
    const part = this.index.parts.has(this.chapter.at);
    const kind = part ? "part" : "chapter";
    return `<section${part ? ' class="part"' : ""}${this.epubType(kind)} role="doc-${kind}">\n${body}\n${notes}</section>`;
  }

  noteSection(): string {
    if (this.notes.size === 0) return "";
    this.isInNotes = true;
    const asides = [...this.notes.values()].map((note) => {
      const { number } = this.index.places.get(note.id)!;
      const back = this.waysBack(note);
      return `<aside${this.epubType("footnote")} role="doc-footnote" aria-label="${number}"${this.id(note.node)}>\n<p class="note-number">${number}${back ? " " + back : ""}</p>\n${this.inNote(note.id, () => this.lines(note.node))}\n</aside>`;
    });
    return `<div class="notes">\n${asides.join("\n")}\n</div>\n`;
  }

  private waysBack({ id, references, standsIn }: NumberedNote): string {
    const { index, chapter } = this.context;
    return standsIn
      .map((note, i) => {
        const page = this.context.pageOf({ chapter, note });
        const name = returnName(index, i + 1, references);
        const label = name === null ? "" : ` aria-label="${escapeXml(name)}"`;
        const href = hrefTo(this.context, page, referenceId(id, i + 1));
        return `<a role="doc-backlink" href="${href}"${label}>${escapeXml(index.conventions.returnWords)}</a>`;
      })
      .join(" ");
  }

  private epubType(type: string): string {
    return this.context.medium === "epub" ? ` epub:type="${type}"` : "";
  }

  private lines(parent: Node): string {
    return this.blocks(parent).join("\n");
  }

  private words(block: Node): string {
    const { sign } = this;
    this.sign = "";
    return sign + this.inlines(block).join("");
  }

  /** What is set off from the text around it, in the element or role that says as what (DPUB-ARIA 1.1). */
  private setOff(node: Node): string {
    const kind = node.attrs["kind"] as SetOff;
    const [element, role] = setOffElements[kind];
    const said = kind === "quotation" ? "" : ` class="${kind}" data-part="${kind}"`;
    return `<${element}${said}${role ? ` role="${role}"` : ""}>${this.lines(node)}</${element}>`;
  }

  private definitionPart(part: Node): string {
    return part.type.name === "definition_term"
      ? `<dt${this.dir(part)}>${this.words(part)}</dt>`
      : `<dd>${this.lines(part)}</dd>`;
  }

  protected override captioned(block: CaptionedBlock): string[] {
    const body = this.block(block.node);
    if (!block.caption) return body;
    const caption = `<figcaption${this.dir(block.caption)}${this.id(block.caption)}>${this.captionWords(block.caption)}</figcaption>`;
    const parts = block.captionFirst ? [caption, ...body] : [...body, caption];
    return [`<figure>${parts.join("\n")}</figure>`];
  }

  private captionWords(caption: Node): string {
    const label = this.captionLabel(caption);
    const lead = label === null ? "" : `<span class="number" data-made="">${escapeXml(label)} </span>`;
    return lead + this.words(caption);
  }

  protected returnLink({ list, words }: ReturnLink): string {
    const href = hrefOfPlace(this.context, this.index.places.get(list)!);
    return `<p class="return" data-made=""><a class="place" href="${href}">${escapeXml(words)}</a></p>`;
  }

  private heading(node: Node, level: number): string {
    const pages = this.pagesBefore(node.children);
    const words = this.words(node);
    if (words.replace(/<[^>]*>/g, "").trim() === "") return `<div${this.id(node)}>${words}</div>`;
    const shown = this.levels.next(level);
    const tag = `h${shown}`;
    // A level that is left out is none in HTML; coming back, it is there again.
    const role = level === 0 ? this.index.roleOf(this.chapter.at) : "chapter";
    const own =
      (shown === level + 1 ? "" : ` data-level="${level}"`) +
      (role === "chapter" ? "" : ` data-role="${role}"`);
    const number = this.index.places.get(node.attrs["id"] as string)?.number ?? null;
    const lead = number === null ? "" : `<span class="number" data-made="">${number} </span>`;
    return `${pages}<${tag}${this.dir(node)}${this.id(node)}${own}>${lead}${words}</${tag}>`;
  }

  private signposts(node: Node): string {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.context.index, this.context.chapter);
    const hrefOfId = (id: string): string | null => {
      const place = this.index.places.get(id);
      return place ? hrefOfPlace(this.context, place) : null;
    };
    const heading =
      list.heading === "" ? "" : `<p class="signposts-heading">${escapeXml(list.heading)}</p>\n`;
    const body = entries.length === 0 ? "" : this.signpostList(nested(entries));
    return `<div class="signposts"${this.id(node)}${asAttributes(saidOfList(list, hrefOfId))}>${heading}${body}</div>`;
  }

  private signpostList(branches: SignpostBranch[]): string {
    const items = branches.map(({ id, words, inner }) => {
      const href = hrefOfPlace(this.context, this.index.places.get(id)!);
      return `<li><a class="place" href="${href}">${escapeXml(words)}</a>${inner.length > 0 ? this.signpostList(inner) : ""}</li>`;
    });
    return `<ul>${items.join("")}</ul>`;
  }

  private items(list: Node): string {
    return list.children
      .map((item) => {
        const done = item.attrs["done"] as boolean | null;
        const sign = done === null ? "" : `<span data-done="${done}">${taskSign(done)} </span>`;
        const opens = item.firstChild!.type.name === "paragraph";
        this.sign = opens ? sign : "";
        const lines = this.lines(item);
        const alone = opens || sign === "" ? "" : `<p>${sign}</p>`;
        return `<li>${alone}${lines}</li>`;
      })
      .join("");
  }

  private table(node: Node): string {
    const rows = this.inside(node, () =>
      node.children.map((row) => `<tr>${row.children.map((cell) => this.cell(cell)).join("")}</tr>`),
    );
    const head = countHeadRows(node);
    const thead = head > 0 ? `<thead>${rows.slice(0, head).join("")}</thead>` : "";
    const tbody = head < rows.length ? `<tbody>${rows.slice(head).join("")}</tbody>` : "";
    return `<table${this.dir(node)}>${thead}${tbody}</table>`;
  }

  private cell(cell: Node): string {
    const head = cell.type.name === "table_header";
    const { colspan, rowspan, align } = cell.attrs as {
      colspan: number;
      rowspan: number;
      align: string | null;
    };
    const attrs =
      (head ? ' scope="col"' : "") +
      (colspan > 1 ? ` colspan="${colspan}"` : "") +
      (rowspan > 1 ? ` rowspan="${rowspan}"` : "") +
      (align ? ` class="${align}"` : "") +
      this.dir(cell);
    const [first] = cell.children;
    const isWords =
      cell.childCount === 1 && first!.type.name === "paragraph" && first!.attrs["align"] === null;
    const only = isWords ? first! : null;
    const tag = head ? "th" : "td";
    return `<${tag}${attrs}>${only ? this.words(only) : this.lines(cell)}</${tag}>`;
  }

  protected linked(link: LinkAttrs, run: InlineRun): string[] {
    const only = run.nodes.length === 1 && run.nodes[0]!.type.name === "picture" ? run.nodes[0]! : null;
    if (only && pictureAttrs(only).hotspots.length > 0)
      return [pictureXhtml(pictureAttrs(only), link, this.context)];
    const pages = this.pagesBefore(run.nodes);
    const content = run.nodes.flatMap((node) => this.inline(node)).join("");
    const href = hrefOf(this.context, link.destination);
    if (href === null) return [`${pages}<span class="no-link">${content}</span>`];
    const title =
      (link.description ? ` title="${attributeXml(link.description)}"` : "") + linkId(this.context, link.id);
    const { kind } = link.destination;
    const look = link.asText ? "as-text" : link.look ? `${kind} ${lookClass(link.look)}` : kind;
    const file = this.context.files.get("file" in link.destination ? link.destination.file : "");
    const kept = asAttributes({
      file: file?.name ?? null,
      look: saidOfLook(link),
      "new-window": link.newWindow && this.context.medium === "epub" ? "" : null,
    });
    let opens = "";
    if (link.newWindow && this.context.medium === "web" && /^https?:/.test(href)) {
      // WCAG 2.2 SC 3.2.5, technique G201: who follows it is told before.
      const name = `${runText(run)} (${this.index.words.newWindow})`;
      opens = ` target="_blank" rel="noopener" aria-label="${attributeXml(name)}"`;
    }
    return [`${pages}<a class="${look}" href="${escapeXml(href)}"${title}${opens}${kept}>${content}</a>`];
  }

  /** The marks of pages that begin in words that come, before them. */
  private pagesBefore(words: readonly Node[]): string {
    return this.isInNotes ? "" : this.pages.before(words.map((node) => node.text ?? "").join(""));
  }

  private inLanguage(tag: string, text: string): string {
    const xml = this.context.medium === "epub" ? ` xml:lang="${escapeXml(tag)}"` : "";
    return `<span lang="${escapeXml(tag)}"${xml}>${text}</span>`;
  }

  /** Within a list or table that is turned round, blocks that are not say so too. */
  private dir(node: Node): string {
    const turned = this.turned(node) ?? (this.turnedAround > 0 ? this.index.direction : null);
    return turned === null ? "" : ` dir="${turned}"`;
  }

  private inside<T>(node: Node, write: () => T): T {
    const isTurned = this.turned(node) !== null;
    if (isTurned) this.turnedAround++;
    const written = write();
    if (isTurned) this.turnedAround--;
    return written;
  }

  private id(node: Node): string {
    const id = node.attrs["id"] as string;
    // The id belongs to the first chapter that has it, as in the index of places.
    if (this.context.usedIds.has(id) || this.index.places.get(id)?.chapter !== this.context.chapter)
      return "";
    this.context.usedIds.add(id);
    return ` id="${id}"`;
  }
}
