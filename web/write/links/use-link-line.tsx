import { linkUses } from "@vennet/core/manuscript/links";
import { closeHistory } from "prosemirror-history";
import type { EditorView } from "prosemirror-view";
import type { Spot } from "@vennet/core/destination/read-typed";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { putAnchor } from "@vennet/core/manuscript/edit-anchors";
import { newId } from "@vennet/core/manuscript/ids";
import { useCallback, useMemo, useState, type ReactNode } from "react";
import { flushSync } from "react-dom";
import { editLink, insertLinkedWords, linkWords, wordsOfSelection } from "../text/link-commands";
import { linkAtSelection, pendingWords, tellLinkMarks } from "../text/link-marks";
import { LinkLine, type TakenLine } from "./link-line";
import { lineAt, placesNearby, type OpenLine } from "./open-line";
import { useTakenLink } from "./taken-link";
import type { NewTargets } from "./use-new-targets";

/** The link line, opened at the words that it is for; what it gives is put into the text there. */
export function useLinkLine({
  bookId,
  chapterId,
  view,
  topOf,
  targets,
  tell,
}: {
  bookId: string;
  chapterId: string;
  view: EditorView | null;
  topOf: (view: EditorView, position: number) => number;
  targets: NewTargets;
  /** Tells the author what could not be done. */
  tell: (problem: string) => void;
}): { openLine: (view: EditorView) => void; isLineOpen: boolean; linkLine: ReactNode } {
  const [line, setLine] = useState<OpenLine | null>(null);

  const openLine = useCallback(
    (editor: EditorView): void => {
      const opened = lineAt(editor.state, linkAtSelection(editor.state));
      if (!opened) return;
      editor.dispatch(tellLinkMarks(editor.state.tr, { pending: { from: opened.from, to: opened.to } }));
      // At once, so that no key that is typed next falls into the text.
      const nearby = placesNearby(editor.state.doc);
      flushSync(() => setLine({ ...opened, top: topOf(editor, opened.to), nearby }));
    },
    [topOf],
  );

  const close = useCallback((): void => {
    setLine(null);
    if (!view || view.isDestroyed) return;
    view.dispatch(tellLinkMarks(view.state.tr, { pending: null }));
    view.focus();
  }, [view]);

  const take = ({ use: opened, words: before }: OpenLine, taken: TakenLine): void => {
    // The text may have changed around the words since.
    const { from, to } = pendingWords(view!.state)!;
    const use = opened && linkUses(view!.state.doc).find(({ id }) => id === opened.id);
    close();
    if (opened && !use) {
      tell("The link is gone from the text.");
      return;
    }
    const { destination, words, description } = taken;
    view!.dispatch(closeHistory(view!.state.tr));
    const text = words === "" || words === before ? undefined : words;
    const link = { destination, description };
    if (use?.on === "reference" && destination.kind !== "place") {
      tell("A cross-reference follows a place in the book. Choose one, or delete it and make a link.");
      return;
    }
    if (use) view!.dispatch(editLink(view!.state, use, text === undefined ? link : { ...link, text }));
    else if (from === to) view!.dispatch(insertLinkedWords(view!.state, words, link));
    else view!.dispatch(linkWords(view!.state, from, to, link, text));
  };

  const placeAtSpot = async (spot: Spot): Promise<Destination> => {
    if (spot.chapterId !== chapterId || spot.place !== null) return targets.placeAtWords(spot);
    const id = newId();
    const change = closeHistory(view!.state.tr);
    putAnchor(change, spot.from, spot.to, id);
    view!.dispatch(change);
    return { kind: "place", target: id };
  };
  const doc = view?.state.doc;
  const here = useMemo(
    () => (line && doc ? { chapterId, doc, from: line.from, to: line.to } : null),
    [chapterId, doc, line],
  );

  if (!line || !view) return { openLine, isLineOpen: false, linkLine: null };
  return {
    openLine,
    isLineOpen: true,
    linkLine: (
      <div className="absolute right-0 left-0 z-20" style={{ top: line.top }}>
        <LinkLine
          key={`${line.from}-${line.to}`}
          bookId={bookId}
          nearby={line.nearby}
          destination={line.use?.destination ?? null}
          words={line.words}
          description={line.use?.description ?? null}
          wordsLabel={line.wordsLabel}
          here={here}
          onSpot={placeAtSpot}
          onLeave={close}
          onTake={(taken) => take(line, taken)}
          onMakePage={targets.makePage}
          onBringFile={targets.bringFile}
          onShelf={targets.leadToShelf}
        />
      </div>
    ),
  };
}

/** Gives the words at the cursor the link that was taken before. */
export function giveTaken(view: EditorView, tell: (problem: string) => void): void {
  const { taken } = useTakenLink.getState();
  const { from, to } = wordsOfSelection(view.state);
  const use = linkAtSelection(view.state);
  if (!taken) tell("No link has been copied yet. Put the cursor into one and press Alt L.");
  else if (use) view.dispatch(editLink(view.state, use, { destination: taken.destination }));
  else if (from < to) view.dispatch(linkWords(view.state, from, to, taken));
  else view.dispatch(insertLinkedWords(view.state, taken.text, taken));
}

/** Takes the link at the cursor, to be given to other words. */
export function takeLink(view: EditorView): void {
  const use = linkAtSelection(view.state);
  if (use) useTakenLink.getState().take(use);
}

/** The link before or after the one at the cursor, or before or after the cursor; round and round. */
export function linkBeside(view: EditorView, step: 1 | -1) {
  const uses = linkUses(view.state.doc);
  const active = linkAtSelection(view.state);
  const { from } = view.state.selection;
  const at = active ? uses.findIndex(({ id }) => id === active.id) : -1;
  if (step === 1)
    return at === -1 ? (uses.find((use) => use.from > from) ?? uses[0]) : uses[(at + 1) % uses.length];
  return at === -1 ? (uses.findLast((use) => use.to < from) ?? uses.at(-1)) : uses.at(at - 1);
}
