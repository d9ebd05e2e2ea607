import { chapterTitle, countWords, writeChapter } from "@vennet/core/manuscript/chapter";
import type { Node } from "prosemirror-model";
import { ledgerRows, type LedgerRows } from "../ledger/ledger-rows.ts";

/** What is kept of a chapter's text: the text itself, as JSON, and all that follows from it. */
export interface DerivedChapter {
  title: string;
  document: string;
  words: number;
  ledger: LedgerRows;
}

/** What is to be kept of a document. */
export function deriveChapter(doc: Node): DerivedChapter {
  return {
    title: chapterTitle(doc).slice(0, 1000),
    document: JSON.stringify(writeChapter(doc)),
    words: countWords(doc),
    ledger: ledgerRows(doc),
  };
}
