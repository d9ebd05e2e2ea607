import { writeChapter } from "@vennet/core/manuscript/chapter";
import { SearchedPages } from "@vennet/core/proof/find-in-pages";
import { PdfPageTexts, type PdfPiece } from "@vennet/core/pdf/page-text";
import type { Node } from "prosemirror-model";
import { useEffect, useRef, useState } from "react";
import { ApiError, errorFrom } from "../../api/client";
import { openPdf, type OpenPdf } from "../../read/open-pdf";

/** A chapter's pages as they are set from its open text. */
export interface SetPages {
  pdf: OpenPdf;
  /** The pieces of text on each page. */
  pieces: PdfPiece[][];
  searched: SearchedPages;
  /** The text that they were set from. */
  doc: Node;
}

// Long enough that nothing is set between two keys of a word, short enough that a second is kept.
const pauseMs = 350;

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
          const text = wanted.current;
          wanted.current = null;
          const pdf = await openPdf(await pagesOf(bookId, chapterId, text));
          const pieces = await piecesOf(pdf);
          const searched = new SearchedPages(pieces.map((page) => page.map(({ words }) => words)));
          if (isLeft.current) void pdf.document.destroy();
          else setPages({ pdf, pieces, searched, doc: text });
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
  useEffect(
    () => () => {
      void pages?.pdf.document.destroy();
    },
    [pages],
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

function piecesOf({ document }: OpenPdf): Promise<PdfPiece[][]> {
  const texts = new PdfPageTexts(document);
  const numbers = Array.from({ length: document.numPages }, (_, i) => i + 1);
  return Promise.all(numbers.map(async (number) => (await texts.of(number)).pieces));
}
