import { lettersOf } from "@vennet/core/finished/pdf/letters";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useRef, useState } from "react";
import { findWords, type Picked } from "./picked";

/** Words that are sought in a file. */
export interface FoundWords {
  typed: string;
  /** Where they stand on the page that is shown. */
  onPage: readonly Picked[];
  told: string;
  type: (words: string) => void;
  /** The next page on which they stand, from the one that is shown; null where there is none. */
  nextPage: () => Promise<number | null>;
}

/** Finds words on the page that is shown, and from there on through the file. */
export function useFoundWords(file: PDFDocumentProxy, number: number): FoundWords {
  const [typed, setTyped] = useState("");
  const [onPage, setOnPage] = useState<readonly Picked[]>([]);
  const [told, setTold] = useState("");
  const turn = useRef(0);
  const onNumber = async (at: number): Promise<Picked[]> => {
    const page = await file.getPage(at);
    return findWords(lettersOf(await page.getTextContent({ includeMarkedContent: true })), typed);
  };
  const latest = useRef(onNumber);
  latest.current = onNumber;
  useEffect(() => {
    const mine = ++turn.current;
    void latest.current(number).then((found) => {
      if (mine === turn.current) setOnPage(found);
    });
  }, [typed, number, file]);
  const nextPage = async (): Promise<number | null> => {
    const mine = ++turn.current;
    for (let i = 1; i <= file.numPages; i++) {
      const at = ((number - 1 + i) % file.numPages) + 1;
      setTold(`Looking at page ${at} …`);
      if ((await latest.current(at)).length > 0) {
        setTold("");
        return at;
      }
      if (mine !== turn.current) return null;
    }
    setTold("These words stand on no page.");
    return null;
  };
  return {
    typed,
    onPage,
    told,
    type: (words) => {
      setTyped(words);
      setTold("");
    },
    nextPage,
  };
}
