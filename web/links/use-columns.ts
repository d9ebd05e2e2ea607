import { useMemo } from "react";
import { useBook } from "../book-page";
import { columns, type Column } from "./ledger-view";

/** What the parts of a publication are called: a book has chapters, a finished file has pages. */
export function usePartWord(): "chapter" | "page" {
  return useBook().finished ? "page" : "chapter";
}

/** The columns of the ledger with their words for this publication, and how much of the width each has. */
export function useColumns(): readonly (readonly [column: Column, words: string, width: string])[] {
  const part = usePartWord();
  return useMemo(
    () =>
      columns.map(([column, words, width]) => [
        column,
        column === "chapter" && part === "page" ? "Page" : words,
        width,
      ]),
    [part],
  );
}
