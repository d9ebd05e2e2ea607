import { pasted, type Pasted } from "@vennet/core/import/pasted/pasted";
import { schema } from "@vennet/core/manuscript/schema";
import type { Root } from "hast";
import { fromDom } from "hast-util-from-dom";
import { filesElsewhere, type FileElsewhere } from "./files-of-pasted";
import { awaitNotes, notesFromClipboard } from "./pasted-notes";
import { DOMParser, Slice, type ParseOptions } from "prosemirror-model";

/** What the editor itself writes to the clipboard has one of these. */
const own = "[data-pm-slice], [data-link], [data-attrs], img[data-file]";

/**
 * Reads what is pasted: text of this editor as it stands, that of any other program or page as manuscripts are read that
 * come in.
 * @param onPasted told what could not be taken over, and the pictures that were inside
 * @param onFilesElsewhere told the files that text of this editor has in another book
 */
export function clipboardParser(
  bookId: string,
  onPasted: (made: Pasted) => void,
  onFilesElsewhere: (files: readonly FileElsewhere[]) => void,
): DOMParser {
  const ofSchema = DOMParser.fromSchema(schema);
  const parser: Pick<DOMParser, "parseSlice"> = {
    parseSlice(dom: HTMLElement, options?: ParseOptions): Slice {
      awaitNotes([]);
      // What is plain text has no more to it than its words and all its blanks.
      if (options?.preserveWhitespace === true || dom.querySelector(own)) {
        notesFromClipboard(dom);
        const files = filesElsewhere(dom, bookId);
        if (files.length > 0) onFilesElsewhere(files);
        return ofSchema.parseSlice(dom, options);
      }
      const made = pasted({ type: "root", children: (fromDom(dom) as Root).children });
      onPasted(made);
      awaitNotes(made.notes);
      return Slice.maxOpen(made.content);
    },
  };
  return parser as DOMParser;
}
