import type { PageContext } from "./page-context.ts";
import { escapeXml } from "./escape-xml.ts";

/** Marks where the pages of the PDF begin in a chapter’s text while that is written (DPUB-ARIA 1.1, doc-pagebreak). */
export class PageMarks {
  /** How many characters of the text have been written, and how many pages have begun in them. */
  private written = 0;
  private begun = 0;

  constructor(private readonly context: Pick<PageContext, "pageBreaks" | "medium">) {}

  /** Text, with a mark before each character with which a page begins. */
  inText(text: string): string {
    const { pageBreaks, medium } = this.context;
    const start = this.written;
    this.written += text.length;
    let out = "";
    let done = 0;
    for (; this.begun < pageBreaks.length; this.begun++) {
      const { offset, label } = pageBreaks[this.begun]!;
      if (offset >= this.written) break;
      out += escapeXml(text.slice(done, offset - start));
      out += pageBreak(label, medium);
      done = offset - start;
    }
    return out + escapeXml(text.slice(done));
  }

  /** The marks of pages that begin in so much of the text that comes, before it: in a name they would be part of it. */
  before(text: string): string {
    const { pageBreaks, medium } = this.context;
    let out = "";
    for (
      ;
      pageBreaks[this.begun] && pageBreaks[this.begun]!.offset < this.written + text.length;
      this.begun++
    )
      out += pageBreak(pageBreaks[this.begun]!.label, medium);
    return out;
  }
}

/** The mark of a page of the PDF that begins. */
export function pageBreak(label: string, medium: PageContext["medium"]): string {
  const type = medium === "epub" ? ' epub:type="pagebreak"' : "";
  return `<span${type} role="doc-pagebreak" id="${pageId(label)}" title="${escapeXml(label)}"></span>`;
}

/** The id at which a page of the PDF begins. */
export function pageId(label: string): string {
  return `page-${label.replace(/[^\w-]+/g, "-")}`;
}
