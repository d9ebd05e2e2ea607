import type { LinkedPart } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
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
  return derivePart(new ManuscriptChapter(doc));
}

/** What is to be kept of a part of a publication. */
export function derivePart(part: LinkedPart<unknown>): DerivedChapter {
  return {
    title: part.title.slice(0, 1000),
    document: JSON.stringify(part.toJson()),
    words: part.words,
    ledger: ledgerRows(part),
  };
}
