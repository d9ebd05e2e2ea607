import { writeChapter } from "@vennet/core/manuscript/chapter";
import { SearchedPages } from "@vennet/core/proof/find-in-pages";
import { PdfPageTexts, type PdfPiece } from "@vennet/core/pdf/page-text";
import type { Node } from "prosemirror-model";
import { useEffect, useRef, useState } from "react";
import { ApiError, errorFrom } from "../../api/client";
import { lastingWorker } from "../../parts/pdf-document";
import { openPdf, type OpenPdf } from "../../read/open-pdf";

/** A chapter's pages as they are set from its open text. */
export interface SetPages {
  pdf: OpenPdf;
  /** By which places of the text are found; for a moment that of the pages before, which is read sooner than theirs. */
  text: TextOfPages;
  /** The text that they were set from. */
  doc: Node;
}

interface TextOfPages {
  /** The pieces of text on each page. */
  pieces: PdfPiece[][];
  searched: SearchedPages;
}

// Long enough that little is set between two keys of a word, short enough that pages are there half a second after the last.
const pauseMs = 250;

/** Sets the open text anew after each pause in typing; what was set last stays until the next is there. */
export function useSetPages(
  bookId: string,
  chapterId: string,
  doc: Node,
): { pages: SetPages | null; isSetting: boolean; problem: string | null } {
  const [pages, setPages] = useState<SetPages | null>(null);
  const [isSetting, setSetting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  /** The text to be set next, and whether one is being set: the server is asked for one at a time. */
  const wanted = useRef<Node | null>(null);
  const isBusy = useRef(false);
  const isLeft = useRef(false);
  /** The text of the pages that were set last. */
  const lastText = useRef<TextOfPages | null>(null);

  useEffect(() => {
    isLeft.current = false;
    return () => {
      isLeft.current = true;
    };
  }, []);

  useEffect(() => {
    const setAll = async (): Promise<void> => {
      if (isBusy.current) return;
      isBusy.current = true;
      setSetting(true);
      try {
        while (wanted.current && !isLeft.current) {
          const set = wanted.current;
          wanted.current = null;
          const pdf = await openPdf(await pagesOf(bookId, chapterId, set), null, lastingWorker());
          if (!isLeft.current && lastText.current) setPages({ pdf, text: lastText.current, doc: set });
          // Where there is something newer to be set, the text of the pages before does as long.
          const isOver = (): boolean =>
            isLeft.current || (wanted.current !== null && lastText.current !== null);
          const text = await textOf(pdf, isOver);
          if (isLeft.current) void pdf.document.destroy();
          else if (text) setPages({ pdf, text, doc: set });
          lastText.current = text ?? lastText.current;
        }
        setProblem(null);
      } catch (error) {
        setProblem((error as Error).message);
      } finally {
        isBusy.current = false;
        setSetting(false);
      }
    };
    const timer = setTimeout(() => {
      wanted.current = doc;
      void setAll();
    }, pauseMs);
    return () => clearTimeout(timer);
  }, [bookId, chapterId, doc]);

  // What is shown no more is closed.
  const pdf = pages?.pdf;
  useEffect(
    () => () => {
      void pdf?.document.destroy();
    },
    [pdf],
  );
  return { pages, isSetting, problem };
}

async function pagesOf(bookId: string, chapterId: string, doc: Node): Promise<Uint8Array> {
  const answer = await fetch(`/api/books/${bookId}/exports/chapters/${chapterId}/pages`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ document: writeChapter(doc) }),
  }).catch(() => {
    throw new ApiError(0, "away", "Vennet’s server does not answer. The pages are those of a moment ago.");
  });
  if (!answer.ok) throw errorFrom(answer.status, await answer.json().catch(() => null));
  return new Uint8Array(await answer.arrayBuffer());
}

/** The text of all pages; null where it is no longer wanted before it is read. */
async function textOf({ document }: OpenPdf, isOver: () => boolean): Promise<TextOfPages | null> {
  const texts = new PdfPageTexts(document);
  const pieces: PdfPiece[][] = [];
  // One after the other, so that the page that is shown is painted in between.
  for (let number = 1; number <= document.numPages; number++) {
    if (isOver()) return null;
    pieces.push((await texts.of(number)).pieces);
  }
  return { pieces, searched: new SearchedPages(pieces.map((page) => page.map(({ words }) => words))) };
}
