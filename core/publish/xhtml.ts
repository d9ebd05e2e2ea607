import type { Node } from "prosemirror-model";
import { inlineRuns } from "../manuscript/links.ts";
import { numberNotes, type NumberedNote } from "../manuscript/notes.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { pictureAttrs, pictureWords, type LinkAttrs } from "../manuscript/schema.ts";
import { countHeadRows } from "../manuscript/tables.ts";
import { travel } from "./travel.ts";

/** What the XHTML of one chapter needs to know of the rest of the book. */
export interface XhtmlContext {
  /** Each landing place's id with the index of its chapter. */
  places: Map<string, number>;
  chapter: number;
  /** The address of another chapter's page, seen from this one. */
  chapterHref: (index: number) => string;
  /** The address of a picture, or null where it did not travel. */
  pictureHref: (file: string) => string | null;
  /** Ids already written on this page; two equal ids would be invalid. */
  usedIds: Set<string>;
}

/** Escapes text for XML content and double-quoted attributes. Controls that XML 1.0 forbids are left out. */
export function escapeXml(text: string): string {
  return text

    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "")
    .replace(/&/g, "&amp;")
    .replace(/</g, "&lt;")
    .replace(/>/g, "&gt;")
    .replace(/"/g, "&quot;");
}

/** The XHTML of one chapter: the content of `body`, with its notes at the end. */
export function chapterXhtml(doc: Node, context: XhtmlContext): string {
  return new ChapterWriter(doc, context).write();
}

class ChapterWriter {
  private readonly notes: NumberedNote[];
  private readonly noteById: Map<string, NumberedNote>;
  private readonly levels = new HeadingLevels();
  private readonly referencesWritten = new Map<string, number>();

  constructor(
    private readonly doc: Node,
    private readonly context: XhtmlContext,
  ) {
    this.notes = numberNotes(doc);
    this.noteById = new Map(this.notes.map((note) => [note.id, note]));
  }

  write(): string {
    const body = this.doc.children
      .filter((node) => node.type.name !== "note")
      .map((node) => this.block(node))
      .join("\n");
    return `<section epub:type="chapter" role="doc-chapter">\n${body}\n${this.noteSection()}</section>`;
  }

  private noteSection(): string {
    if (this.notes.length === 0) return "";
    const asides = this.notes.map((note) => {
      const back = Array.from({ length: note.references }, (_, i) => {
        const which = note.references > 1 ? ` ${i + 1}` : "";
        return `<a role="doc-backlink" href="#ref-${note.id}-${i + 1}" aria-label="Back to the text${which}">↩</a>`;
      }).join(" ");
      return `<aside epub:type="footnote" role="doc-footnote" id="note-${note.id}">\n<p class="note-number">${note.number}${back ? " " + back : ""}</p>\n${this.blocks(note.node)}\n</aside>`;
    });
    return `<div class="notes">\n${asides.join("\n")}\n</div>\n`;
  }

  private blocks(parent: Node): string {
    return parent.children.map((child) => this.block(child)).join("\n");
  }

  private block(node: Node): string {
    switch (node.type.name) {
      case "title":
        return this.heading(node, 0);
      case "heading":
        return this.heading(node, node.attrs["level"] as number);
      case "blockquote":
        return `<blockquote>${this.blocks(node)}</blockquote>`;
      case "code_block":
        return `<pre><code>${this.inlines(node)}</code></pre>`;
      case "bullet_list":
        return `<ul>${this.items(node)}</ul>`;
      case "ordered_list": {
        const start = node.attrs["start"] as number;
        return `<ol${start === 1 ? "" : ` start="${start}"`}>${this.items(node)}</ol>`;
      }
      case "table":
        return this.table(node);
      case "section_break":
        return "<hr/>";
      default:
        return `<p>${this.inlines(node)}</p>`;
    }
  }

  private heading(node: Node, level: number): string {
    const words = this.inlines(node);
    if (words.replace(/<[^>]*>/g, "").trim() === "") return `<div${this.id(node)}>${words}</div>`;
    const tag = `h${this.levels.next(level)}`;
    return `<${tag}${this.id(node)}>${words}</${tag}>`;
  }

  private items(list: Node): string {
    return list.children.map((item) => `<li>${this.blocks(item)}</li>`).join("");
  }

  private table(node: Node): string {
    const rows = node.children.map(
      (row) => `<tr>${row.children.map((cell) => this.cell(cell)).join("")}</tr>`,
    );
    const head = countHeadRows(node);
    const thead = head > 0 ? `<thead>${rows.slice(0, head).join("")}</thead>` : "";
    const tbody = head < rows.length ? `<tbody>${rows.slice(head).join("")}</tbody>` : "";
    return `<table>${thead}${tbody}</table>`;
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
      (align ? ` class="${align}"` : "");
    const only = cell.childCount === 1 && cell.firstChild!.type.name === "paragraph" ? cell.firstChild : null;
    const tag = head ? "th" : "td";
    return `<${tag}${attrs}>${only ? this.inlines(only) : this.blocks(cell)}</${tag}>`;
  }

  private inlines(block: Node): string {
    let out = "";
    for (const run of inlineRuns(block)) {
      if (!run.link) {
        out += run.nodes.map((node) => this.inline(node)).join("");
        continue;
      }
      const isNote = (node: Node): boolean => node.type.name === "note_reference";
      out += this.link(
        run.link,
        run.nodes
          .filter((node) => !isNote(node))
          .map((node) => this.inline(node))
          .join(""),
      );
      // A link cannot hold another one: a note's number inside a link stands behind it.
      out += run.nodes
        .filter(isNote)
        .map((node) => this.inline(node))
        .join("");
    }
    return out;
  }

  private link(link: LinkAttrs, content: string): string {
    const way = travel(link.destination, this.context.places);
    if (way.as === "words") return `<span class="no-link">${content}</span>`;
    const page =
      way.as === "place" && way.chapter !== this.context.chapter ? this.context.chapterHref(way.chapter) : "";
    const href = way.as === "address" ? way.address : `${page}#${way.target}`;
    const title = link.description ? ` title="${escapeXml(link.description)}"` : "";
    return `<a href="${escapeXml(href)}"${title}>${content}</a>`;
  }

  private inline(node: Node): string {
    switch (node.type.name) {
      case "text": {
        let text = escapeXml(node.text!);
        for (const mark of [...node.marks].reverse()) {
          if (mark.type.name === "code") text = `<code>${text}</code>`;
          if (mark.type.name === "strong") text = `<strong>${text}</strong>`;
          if (mark.type.name === "emphasis") text = `<em>${text}</em>`;
        }
        return text;
      }
      case "hard_break":
        return "<br/>";
      case "picture": {
        const { file, alt } = pictureAttrs(node);
        const href = file === null ? null : this.context.pictureHref(file);
        return href === null
          ? escapeXml(pictureWords(pictureAttrs(node)))
          : `<img src="${escapeXml(href)}" alt="${escapeXml(alt)}"/>`;
      }
      case "anchor":
        return `<span${this.id(node)}></span>`;
      default:
        return this.noteReference(node.attrs["note"] as string);
    }
  }

  private noteReference(id: string): string {
    const note = this.noteById.get(id);
    if (!note) return "";
    const count = (this.referencesWritten.get(id) ?? 0) + 1;
    this.referencesWritten.set(id, count);
    return `<sup><a epub:type="noteref" role="doc-noteref" href="#note-${id}" id="ref-${id}-${count}">${note.number}</a></sup>`;
  }

  private id(node: Node): string {
    const id = node.attrs["id"] as string;
    // The id belongs to the first chapter that has it, as in the index of places.
    if (this.context.usedIds.has(id) || this.context.places.get(id) !== this.context.chapter) return "";
    this.context.usedIds.add(id);
    return ` id="${id}"`;
  }
}
