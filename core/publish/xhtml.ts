import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/destination.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";
import { captionedBlocks, type CaptionedBlock } from "../manuscript/captions.ts";
import { hotspotBox, noFrame, type Hotspot } from "../manuscript/hotspot.ts";
import { inlineRuns, type InlineRun } from "../manuscript/links.ts";
import { numberNotes, referenceId, type NumberedNote } from "../manuscript/notes.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { gapSign, positionOfReference, referenceWords } from "../manuscript/references.ts";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
  type PictureAttrs,
} from "../manuscript/schema.ts";
import { nested, returnLinksOf, signpostsOf, type SignpostBranch } from "../manuscript/signposts.ts";
import { countHeadRows } from "../manuscript/tables.ts";
import type { PageBreak } from "./page-breaks.ts";
import { returnName } from "./return-name.ts";
import { travel } from "./travel.ts";
import type { TravellingFile } from "./travelling-files.ts";

/** What the XHTML of one page needs to know of the rest of the book. */
export interface XhtmlContext {
  index: BookIndex;
  /** The index of the chapter that is written. */
  chapter: number;
  /** The name of the page that is written, and of the page on which a place stands. */
  page: string;
  pageOf: (place: Pick<IndexedPlace, "chapter" | "note">) => string;
  /** E-books say what their parts are by `epub:type`; web pages open windows. */
  medium: "epub" | "web";
  /** A picture's address and its size in pixels, or null where it did not travel. */
  picture: (file: string) => { href: string; width: number; height: number } | null;
  /** The companion files that come along. */
  files: ReadonlyMap<string, TravellingFile>;
  /** Where the pages of the PDF begin in the chapter that is written. */
  pageBreaks: readonly PageBreak[];
  /** Set by the writer where the page has pictures with areas that are links. */
  hasAreas: boolean;
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

/** The XHTML of one chapter: a section, with its notes at the end unless they stand at the book's end. */
export function chapterXhtml(doc: Node, context: XhtmlContext): string {
  return new ChapterWriter(doc, context).write();
}

/** The XHTML of one chapter's notes, for the end of the book; empty where it has none. */
export function notesXhtml(doc: Node, context: XhtmlContext): string {
  return new ChapterWriter(doc, context).noteSection();
}

class ChapterWriter {
  private readonly notes: NumberedNote[];
  private readonly levels = new HeadingLevels();
  private readonly referencesWritten = new Map<string, number>();
  /** How many characters of the text have been written, and how many pages have begun in them. */
  private written = 0;
  private pagesBegun = 0;
  private isInNotes = false;

  constructor(
    private readonly doc: Node,
    private readonly context: XhtmlContext,
  ) {
    this.notes = numberNotes(doc);
  }

  write(): string {
    const { index, chapter } = this.context;
    const returns = returnLinksOf(this.doc, chapter, index);
    const body: string[] = [];
    for (const block of captionedBlocks(this.doc)) {
      if (block.node.type.name === "note") continue;
      body.push(this.captioned(block));
      for (const { at, list, words } of returns) {
        if (at !== block.end) continue;
        const href = this.placeHref(index.places.get(list)!);
        body.push(`<p class="return"><a class="place" href="${href}">${escapeXml(words)}</a></p>`);
      }
    }
    const notes = index.conventions.notesAt === "book" ? "" : this.noteSection();
    const type = this.epubType("chapter");
    return `<section${type} role="doc-chapter">\n${body.join("\n")}\n${notes}</section>`;
  }

  noteSection(): string {
    if (this.notes.length === 0) return "";
    this.isInNotes = true;
    const asides = this.notes.map((note) => {
      const place = this.context.index.places.get(note.id)!;
      const back = Array.from({ length: note.references }, (_, i) => {
        const words = escapeXml(this.context.index.conventions.returnWords);
        const name = returnName(this.context.index, i + 1, note.references);
        const label = name === null ? "" : ` aria-label="${escapeXml(name)}"`;
        const page = this.context.pageOf({ chapter: this.context.chapter, note: null });
        return `<a role="doc-backlink" href="${this.hrefTo(page, referenceId(note.id, i + 1))}"${label}>${words}</a>`;
      }).join(" ");
      return `<aside${this.epubType("footnote")} role="doc-footnote"${this.id(note.node)}>\n<p class="note-number">${place.number}${back ? " " + back : ""}</p>\n${this.blocks(note.node)}\n</aside>`;
    });
    return `<div class="notes">\n${asides.join("\n")}\n</div>\n`;
  }

  private epubType(type: string): string {
    return this.context.medium === "epub" ? ` epub:type="${type}"` : "";
  }

  private blocks(parent: Node): string {
    return captionedBlocks(parent)
      .map((block) => this.captioned(block))
      .join("\n");
  }

  private captioned({ node, caption, captionFirst }: CaptionedBlock): string {
    const body = this.block(node);
    if (!caption) return body;
    const parts = [body, `<figcaption${this.id(caption)}>${this.captionWords(caption)}</figcaption>`];
    return `<figure>${(captionFirst ? parts.reverse() : parts).join("\n")}</figure>`;
  }

  private captionWords(caption: Node): string {
    const place = this.context.index.places.get(caption.attrs["id"] as string);
    const label = place ? this.context.index.labelOf(place) : null;
    const lead = label === null ? "" : `<span class="number">${escapeXml(label)}</span> `;
    return lead + this.inlines(caption);
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
      case "caption":
        return `<p class="caption"${this.id(node)}>${this.captionWords(node)}</p>`;
      case "signposts":
        return this.signposts(node);
      default:
        return `<p>${this.inlines(node)}</p>`;
    }
  }

  private heading(node: Node, level: number): string {
    const words = this.inlines(node);
    if (words.replace(/<[^>]*>/g, "").trim() === "") return `<div${this.id(node)}>${words}</div>`;
    const tag = `h${this.levels.next(level)}`;
    const number = this.context.index.places.get(node.attrs["id"] as string)?.number ?? null;
    const lead = number === null ? "" : `<span class="number">${number}</span> `;
    return `<${tag}${this.id(node)}>${lead}${words}</${tag}>`;
  }

  private signposts(node: Node): string {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.context.index, this.context.chapter);
    const heading =
      list.heading === "" ? "" : `<p class="signposts-heading">${escapeXml(list.heading)}</p>\n`;
    const body = entries.length === 0 ? "" : this.signpostList(nested(entries));
    return `<div class="signposts"${this.id(node)}>${heading}${body}</div>`;
  }

  private signpostList(branches: SignpostBranch[]): string {
    const items = branches.map(({ id, words, inner }) => {
      const href = this.placeHref(this.context.index.places.get(id)!);
      return `<li><a class="place" href="${href}">${escapeXml(words)}</a>${inner.length > 0 ? this.signpostList(inner) : ""}</li>`;
    });
    return `<ul>${items.join("")}</ul>`;
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
      const only = run.nodes.length === 1 && run.nodes[0]!.type.name === "picture" ? run.nodes[0]! : null;
      if (only && pictureAttrs(only).hotspots.length > 0) {
        out += this.picture(pictureAttrs(only), run.link);
        continue;
      }
      const isNote = (node: Node): boolean => node.type.name === "note_reference";
      out += this.link(
        run.link,
        run.nodes
          .filter((node) => !isNote(node))
          .map((node) => this.inline(node))
          .join(""),
        runText(run),
      );
      // A link cannot hold another one: a note's number inside a link stands behind it.
      out += run.nodes
        .filter(isNote)
        .map((node) => this.inline(node))
        .join("");
    }
    return out;
  }

  private link(link: LinkAttrs, content: string, text: string): string {
    const href = this.href(link.destination);
    if (href === null) return `<span class="no-link">${content}</span>`;
    const title = (link.description ? ` title="${escapeXml(link.description)}"` : "") + this.linkId(link.id);
    const look = link.asText ? "as-text" : link.destination.kind;
    let opens = "";
    if (link.newWindow && this.context.medium === "web" && link.destination.kind === "web") {
      // WCAG 2.2 SC 3.2.5, technique G201: who follows it is told before.
      const name = `${text} (${this.context.index.words.newWindow})`;
      opens = ` target="_blank" rel="noopener" aria-label="${escapeXml(name)}"`;
    }
    return `<a class="${look}" href="${escapeXml(href)}"${title}${opens}>${content}</a>`;
  }

  /** Where a link leads, seen from this page; null where it cannot travel. */
  private href(destination: Destination): string | null {
    const way = travel(destination, this.context.index, this.context.files);
    if (way.as === "words") return null;
    if (way.as === "file") return way.file.path;
    return way.as === "address" ? way.address : this.placeHref(way.place);
  }

  private placeHref(place: IndexedPlace): string {
    return this.hrefTo(this.context.pageOf(place), place.id);
  }

  private hrefTo(page: string, id: string): string {
    return `${page === this.context.page ? "" : page}#${id}`;
  }

  private crossReference(node: Node): string {
    const { index, chapter } = this.context;
    const reference = referenceAttrs(node);
    const from = { chapter, position: positionOfReference(this.doc, reference.id) };
    const says = referenceWords(reference, index, from, false);
    if (says.is !== "words") return `<span class="gap">${gapSign}</span>`;
    const href = this.placeHref(index.places.get(reference.target)!);
    return `<a class="place" href="${href}"${this.linkId(reference.id)}>${escapeXml(says.words)}</a>`;
  }

  /** By its id a link is found again in the exported file; what goes on in the next paragraph has none. */
  private linkId(id: string): string {
    if (this.context.usedIds.has(id)) return "";
    this.context.usedIds.add(id);
    return ` id="${id}"`;
  }

  private inline(node: Node): string {
    switch (node.type.name) {
      case "text": {
        let text = this.textWithPages(node.text!);
        for (const mark of [...node.marks].reverse()) {
          if (mark.type.name === "code") text = `<code>${text}</code>`;
          if (mark.type.name === "strong") text = `<strong>${text}</strong>`;
          if (mark.type.name === "emphasis") text = `<em>${text}</em>`;
        }
        return text;
      }
      case "hard_break":
        return "<br/>";
      case "picture":
        return this.picture(pictureAttrs(node), null);
      case "anchor":
        return `<span${this.id(node)}></span>`;
      case "cross_reference":
        return this.crossReference(node);
      default:
        return this.noteReference(node.attrs["note"] as string);
    }
  }

  /** Text, with a mark before each character with which a page of the PDF begins (DPUB-ARIA 1.1). */
  private textWithPages(text: string): string {
    if (this.isInNotes) return escapeXml(text);
    const { pageBreaks } = this.context;
    const start = this.written;
    this.written += text.length;
    let out = "";
    let done = 0;
    for (; this.pagesBegun < pageBreaks.length; this.pagesBegun++) {
      const { offset, label } = pageBreaks[this.pagesBegun]!;
      if (offset >= this.written) break;
      out += escapeXml(text.slice(done, offset - start));
      out += `<span${this.epubType("pagebreak")} role="doc-pagebreak" id="${pageId(label)}" aria-label="${escapeXml(label)}"></span>`;
      done = offset - start;
    }
    return out + escapeXml(text.slice(done));
  }

  /** A picture; `link` is the picture's own link where its areas make an `a` around it impossible. */
  private picture(picture: PictureAttrs, link: LinkAttrs | null): string {
    const { file, alt, width, hotspots } = picture;
    const shown = file === null ? null : this.context.picture(file);
    if (!shown) return escapeXml(pictureWords(picture));
    const size = width === null ? "" : ` class="width-${Math.round(width)}"`;
    if (hotspots.length === 0) return `<img src="${escapeXml(shown.href)}" alt="${escapeXml(alt)}"${size}/>`;
    // SVG areas scale with the picture and need no script, unlike a map of pixels (SVG 1.1, 17.1).
    this.context.hasAreas = true;
    const areas = hotspots.map((hotspot) => this.area(hotspot, shown));
    if (link) {
      const { id, destination, description } = link;
      const whole: Hotspot = {
        id,
        destination,
        description,
        shape: "rectangle",
        points: [
          [0, 0],
          [1, 1],
        ],
        alt,
        frame: noFrame,
      };
      areas.unshift(this.area(whole, shown));
    }
    return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 ${shown.width} ${shown.height}" width="${shown.width}" height="${shown.height}"${size}><image width="${shown.width}" height="${shown.height}" xlink:href="${escapeXml(shown.href)}" role="img" aria-label="${escapeXml(alt)}"/>${areas.join("")}</svg>`;
  }

  private area(hotspot: Hotspot, picture: { width: number; height: number }): string {
    const href = this.href(hotspot.destination);
    if (href === null) return "";
    const box = hotspotBox(hotspot);
    const across = (share: number): number => Math.round(share * picture.width * 100) / 100;
    const down = (share: number): number => Math.round(share * picture.height * 100) / 100;
    const { line, thickness, colour } = hotspot.frame;
    const framed = line === "solid" || line === "dashed";
    const look = `fill="#ffffff" fill-opacity="0"${framed ? ` stroke="${colour}" stroke-width="${thickness}"` : ""}${line === "dashed" ? ` stroke-dasharray="${thickness * 3} ${thickness * 2}"` : ""}`;
    const shape =
      hotspot.shape === "polygon"
        ? `<polygon points="${hotspot.points.map(([x, y]) => `${across(x)},${down(y)}`).join(" ")}" ${look}/>`
        : hotspot.shape === "ellipse"
          ? `<ellipse cx="${across(box.x + box.width / 2)}" cy="${down(box.y + box.height / 2)}" rx="${across(box.width / 2)}" ry="${down(box.height / 2)}" ${look}/>`
          : `<rect x="${across(box.x)}" y="${down(box.y)}" width="${across(box.width)}" height="${down(box.height)}" ${look}/>`;
    const underline =
      line === "underlined"
        ? `<path d="M${across(box.x)} ${down(box.y + box.height)}H${across(box.x + box.width)}" stroke="${colour}" stroke-width="${thickness}"/>`
        : "";
    const title =
      (hotspot.description ? ` xlink:title="${escapeXml(hotspot.description)}"` : "") +
      this.linkId(hotspot.id);
    // Its title child is the area's name (SVG Accessibility API Mappings, 8.1.1).
    return `<a xlink:href="${escapeXml(href)}"${title}><title>${escapeXml(hotspot.alt)}</title>${shape}${underline}</a>`;
  }

  private noteReference(id: string): string {
    const note = this.context.index.places.get(id);
    if (!note || !this.notes.some((own) => own.id === id)) return `<sup class="gap">${gapSign}</sup>`;
    const count = (this.referencesWritten.get(id) ?? 0) + 1;
    this.referencesWritten.set(id, count);
    return `<sup><a${this.epubType("noteref")} role="doc-noteref" href="${this.placeHref(note)}" id="${referenceId(id, count)}">${note.number}</a></sup>`;
  }

  private id(node: Node): string {
    const id = node.attrs["id"] as string;
    // The id belongs to the first chapter that has it, as in the index of places.
    if (this.context.usedIds.has(id) || this.context.index.places.get(id)?.chapter !== this.context.chapter)
      return "";
    this.context.usedIds.add(id);
    return ` id="${id}"`;
  }
}

/** The id at which a page of the PDF begins. */
export function pageId(label: string): string {
  return `page-${label.replace(/[^\w-]+/g, "-")}`;
}

function runText(run: InlineRun): string {
  return run.nodes
    .map((node) => (node.type.name === "picture" ? pictureWords(pictureAttrs(node)) : (node.text ?? "")))
    .join("");
}
