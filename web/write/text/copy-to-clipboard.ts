import { schema } from "@vennet/core/manuscript/schema";
import { DOMSerializer } from "prosemirror-model";
import { nameBook } from "./files-of-pasted";
import { notesToClipboard } from "./pasted-notes";
import { showWords } from "./words-in-copies";

/** Writes text to the clipboard with its notes, what the page shows, and the book in which its pictures and files are. */
export function clipboardSerializer(bookId: string): DOMSerializer {
  const { nodes, marks } = DOMSerializer.fromSchema(schema);
  return new (class extends DOMSerializer {
    override serializeFragment(...given: Parameters<DOMSerializer["serializeFragment"]>) {
      const written = super.serializeFragment(...given);
      // It is called again for what is in each node, and is given that node then.
      const [, , within] = given;
      if (within) return written;
      const whole = written as DocumentFragment;
      nameBook(whole, bookId);
      notesToClipboard(whole);
      showWords(whole);
      return written;
    }
  })(nodes, marks);
}
