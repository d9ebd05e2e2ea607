import type { Finding } from "@vennet/core/checks/finding";
import { linkUses } from "@vennet/core/manuscript/links";
import type { EditorView } from "prosemirror-view";
import { useEffect, useRef } from "react";
import { useSurroundingBook } from "../use-surrounding-book";
import { tellBookNumbers } from "./book-numbers";

/** Keeps the page's numbers, references and lists true to the book around the chapter. */
export function useBookNumbers(view: EditorView | null): void {
  const book = useSurroundingBook();
  useEffect(() => {
    if (view && book) view.dispatch(tellBookNumbers(view.state.tr, { book }));
  }, [view, book]);
}

/** Says on the page what was found of notes, captions and lists; links have cards for that. */
export function useToldFindings(view: EditorView | null, findings: ReadonlyMap<string, Finding[]>): void {
  const told = useRef("");
  useEffect(() => {
    if (!view) return;
    const links = new Set(linkUses(view.state.doc).map(({ id }) => id));
    const rest = [...findings]
      .filter(([id]) => !links.has(id))
      .map(([id, found]) => [id, found.map(({ message }) => message).join(" ")] as const);
    if (JSON.stringify(rest) === told.current) return;
    told.current = JSON.stringify(rest);
    view.dispatch(tellBookNumbers(view.state.tr, { findings: new Map(rest) }));
  }, [view, findings]);
}
