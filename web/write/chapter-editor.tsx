import type { LeftOut } from "@vennet/core/import/left-out";
import type { Pasted } from "@vennet/core/import/pasted/pasted";
import type { ChapterJson } from "@vennet/core/manuscript/chapter";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { closeHistory } from "prosemirror-history";
import type { EditorView } from "prosemirror-view";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { createPortal, flushSync } from "react-dom";
import { useNavigate } from "react-router";
import type { LinkState } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { useDestinationNames, usePlaces } from "../destinations/known-destinations";
import { later } from "../parts/later";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { useRoomFor } from "../parts/use-window";
import type { CardContext } from "./links/card-context";
import { CardsDrawer } from "./links/cards-drawer";
import { Margin } from "./links/margin";
import { MentionsPanel } from "./links/mentions-panel";
import { useAcceptances } from "./links/use-acceptances";
import { useCardActions } from "./links/use-card-actions";
import { useCheckBasis } from "./links/use-check-basis";
import { useFindings } from "./links/use-findings";
import { giveTaken, linkBeside, takeLink, useLinkLine } from "./links/use-link-line";
import { useLinkStates } from "./links/use-link-states";
import { useNewTargets } from "./links/use-new-targets";
import { FirstLink } from "./first-link";
import { PictureAreas } from "./pictures/picture-areas";
import { PicturePanel } from "./pictures/picture-panel";
import { storePicture } from "./pictures/store-picture";
import { useAnchorMarks } from "./places/anchor-marks";
import { GoneNotice } from "./places/gone-notice";
import { useGoing } from "./places/use-going";
import { referenceInfo } from "./references/reference-forms";
import { useTurnInAddress } from "./use-turn-in-address";
import { useReferenceLine } from "./references/use-reference-line";
import type { ChapterSaver } from "./saving/chapter-saver";
import { useAdoptedChanges } from "./saving/use-adopted-changes";
import { AnchorPanel } from "./text/anchor-panel";
import { bookAround } from "./text/book-numbers";
import { bringFiles, type FileKeeper } from "./text/bring-files";
import { bringFromBooks, bringPasted } from "./text/files-of-pasted";
import { PastedNotice } from "./text/pasted-notice";
import { insertPicture } from "./text/insert-commands";
import { removeLink, selectLink } from "./text/link-commands";
import { LanguagePanel } from "./text/language-panel";
import { LinkLookStyle } from "./text/link-look-style";
import { linkAtSelection, tellLinkMarks } from "./text/link-marks";
import { SignpostsPanel } from "./text/signposts-panel";
import { Toolbar } from "./text/toolbar";
import { useBookNumbers, useToldFindings } from "./text/use-book-numbers";
import { useEditor, type EditorHandle } from "./text/use-editor";

// It brings the reader of PDF with it.
const SetPagesColumn = later(
  "Setting the pages",
  async () => (await import("./pages/set-pages")).SetPagesColumn,
);

/** The page of one chapter with its margin: the text, the link line, the margin cards. */
export function ChapterEditor({
  bookId,
  chapterId,
  document,
  unsent,
  saver,
  handle,
  besideText,
  chapterIds,
}: {
  bookId: string;
  chapterId: string;
  /** Of all chapters, in their order. */
  chapterIds: readonly string[];
  document: ChapterJson;
  unsent: boolean;
  saver: ChapterSaver;
  handle: (handle: EditorHandle | null) => void;
  /** Where the set pages are shown; null where they are not. */
  besideText: HTMLElement | null;
}) {
  const place = useRef<HTMLDivElement>(null);
  const { looks, language } = useBook();
  const { view, state, showNow, surroundings } = useEditor({
    place,
    bookId,
    chapterId,
    language,
    document,
    unsent,
    saver,
    handle,
  });
  const [following, setFollowing] = useState<string | null>(null);
  const [mentionsOf, setMentionsOf] = useState<LinkUse | null>(null);
  const [areasAt, setAreasAt] = useState<number | null>(null);
  const [askingLanguage, setAskingLanguage] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [pastedWithout, setPastedWithout] = useState<readonly LeftOut[]>([]);
  const stale = useStale();
  const navigate = useNavigate();
  const wide = useRoomFor(besideText ? "pages" : "columns");
  const names = useDestinationNames(bookId);
  const places = usePlaces(bookId).data;
  const { shown: anchorsShown, show: showAnchors } = useAnchorMarks();
  const around = state && bookAround(state);

  const states = useLinkStates(bookId, chapterId);
  const findings = useFindings(state?.doc ?? null, useCheckBasis(bookId, chapterId, states));
  const settle = useCallback(() => saver.settle(), [saver]);
  const acceptances = useAcceptances(bookId, settle);
  useBookNumbers(view);
  useToldFindings(view, findings);
  useAdoptedChanges(view, { bookId, chapterId }, saver, setProblem);
  useEffect(() => {
    if (!view) return;
    const marks = new Map<string, LinkState>([...states].map(([address, { state: is }]) => [address, is]));
    view.dispatch(tellLinkMarks(view.state.tr, { states: marks }));
  }, [view, states]);

  const topOf = useCallback(
    (editor: EditorView, position: number): number =>
      editor.coordsAtPos(Math.min(position, editor.state.doc.content.size)).bottom -
      editor.dom.getBoundingClientRect().top +
      8,
    [],
  );
  const { targets, madePage } = useNewTargets(bookId, setProblem);
  const { openLine, isLineOpen, linkLine } = useLinkLine({
    bookId,
    chapterId,
    view,
    topOf,
    targets,
    tell: setProblem,
  });
  const { openReference, referenceLine } = useReferenceLine(topOf);
  const { goToPlace, goBack } = useGoing({ bookId, chapterId, view, places, tell: setProblem });
  useTurnInAddress(view, { bookId, chapterId });
  const actions = useCardActions({
    view,
    openLine,
    goToPlace,
    everyMention: setMentionsOf,
    follow: setFollowing,
  });

  const goToLink = (editor: EditorView, step: 1 | -1): void => {
    const next = linkBeside(editor, step);
    if (next) editor.dispatch(selectLink(editor.state, next));
  };
  const follow = (editor: EditorView, use: LinkUse | null): void => {
    if (use && linkAtSelection(editor.state)?.id !== use.id) editor.dispatch(selectLink(editor.state, use));
    // At once, so that no key that is typed next falls into the text.
    flushSync(() => {
      showNow();
      setFollowing(use?.id ?? null);
    });
  };
  const goToChapter = (step: 1 | -1): void => {
    const to = chapterIds[chapterIds.indexOf(chapterId) + step];
    // At its beginning, where the author goes on by keys.
    if (to !== undefined) void navigate(`/books/${bookId}/write/${to}?at=1-1-0`);
  };
  const give = (editor: EditorView): void => giveTaken(editor, setProblem);
  const keeper: FileKeeper = {
    picture: (file) => storePicture(bookId, file),
    companion: targets.bringFile,
  };
  const bringing = async (bring: () => Promise<void>): Promise<void> => {
    setProblem(null);
    try {
      await bring();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const takeFiles = (editor: EditorView, files: File[]): Promise<void> =>
    bringing(() => bringFiles(editor, files, keeper));
  const tellPasted = (editor: EditorView, { leftOut, pictures }: Pasted): void => {
    setPastedWithout(leftOut);
    if (pictures.length === 0) return;
    void bringing(() => bringPasted(editor, pictures, keeper));
  };
  surroundings.current = {
    names,
    onPasted: tellPasted,
    onFilesElsewhere: (editor, files) => void bringing(() => bringFromBooks(editor, files, keeper)),
    onFollow: follow,
    onGoTo: goToPlace,
    onFiles: (editor, files) => void takeFiles(editor, files),
    keys: {
      "Mod-k": openLine,
      "Alt-r": openReference,
      "Mod-s": () => saver.saveNow(),
      "Alt-ArrowDown": (editor) => goToLink(editor, 1),
      "Alt-ArrowUp": (editor) => goToLink(editor, -1),
      "Mod-Enter": (editor) => follow(editor, linkAtSelection(editor.state)),
      "Alt-x": (editor) => {
        const use = linkAtSelection(editor.state);
        if (!use) return;
        editor.dispatch(closeHistory(editor.state.tr));
        editor.dispatch(removeLink(editor.state, use));
      },
      "Alt-PageDown": () => goToChapter(1),
      "Alt-PageUp": () => goToChapter(-1),
      "Alt-l": takeLink,
      "Alt-b": goBack,
      "Alt-Shift-l": give,
      "Alt-Shift-L": give,
    },
  };

  const addPicture = async (file: File): Promise<void> => {
    setProblem(null);
    try {
      const stored = await storePicture(bookId, file);
      insertPicture(stored.id, stored.name)(view!.state, view!.dispatch, view!);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  const referenceOf = useCallback((use: LinkUse) => (view ? referenceInfo(view.state, use) : null), [view]);
  const context = useMemo(
    (): CardContext | null =>
      actions && { bookId, names, states, findings, acceptances, following, actions, referenceOf },
    [bookId, names, states, findings, acceptances, following, actions, referenceOf],
  );
  const hasAreasOpen = areasAt !== null && Boolean(state?.doc.nodeAt(areasAt));
  const isCovered = mentionsOf !== null || hasAreasOpen;
  const uses = state ? linkUses(state.doc) : [];
  const active = state ? linkAtSelection(state) : null;
  return (
    <>
      {/* What is to be seen wherever in the text the author is. */}
      <div className="sticky top-0 z-30">
        {view && state && !isCovered && (
          <Toolbar
            bookId={bookId}
            view={view}
            state={state}
            onLink={() => openLine(view)}
            onGive={() => give(view)}
            onBack={goBack}
            onPicture={(file) => void addPicture(file)}
            onReference={() => openReference(view)}
            onLanguage={() => setAskingLanguage(true)}
            contents={around?.index.words.contents ?? ""}
            anchorsShown={anchorsShown}
            onShowAnchors={showAnchors}
          />
        )}
        {problem && (
          <Problem
            action={
              <Button kind="quiet" onClick={() => setProblem(null)}>
                Close
              </Button>
            }
          >
            {problem}
          </Problem>
        )}
        <PastedNotice leftOut={pastedWithout} onClose={() => setPastedWithout([])} />
        {madePage}
        {state && <FirstLink state={state} isLineOpen={isLineOpen} count={uses.length} />}
        {state && <GoneNotice bookId={bookId} doc={state.doc} />}
      </div>
      {mentionsOf && (
        <MentionsPanel
          bookId={bookId}
          chapterId={chapterId}
          use={mentionsOf}
          settle={settle}
          onDone={() => {
            setMentionsOf(null);
            void stale("text");
          }}
        />
      )}
      {hasAreasOpen && view && (
        <PictureAreas
          bookId={bookId}
          view={view}
          position={areasAt}
          targets={targets}
          onDone={() => setAreasAt(null)}
        />
      )}
      <div
        // The editor stays where it is, since its text lives in this element.
        className={`mx-auto ${isCovered ? "hidden" : "grid"} w-fit max-w-full min-w-0 bg-paper shadow-[0_0_0_1px_var(--hairline)] ${wide ? "my-6 grid-cols-[minmax(0,36rem)_15.5rem] gap-x-8 xl:gap-x-10" : "min-h-full md:my-4"}`}
      >
        <div className={`relative min-w-0 ${wide ? "py-12 pl-6 xl:pl-14" : "px-4 py-5 md:px-14 md:py-10"}`}>
          <div className="relative">
            <LinkLookStyle looks={looks} />
            <div ref={place} className={anchorsShown ? "" : "anchors-hidden"} />
            {referenceLine}
            {linkLine}
            {view && state && around && !isLineOpen && (
              <SignpostsPanel
                view={view}
                state={state}
                index={around.index}
                top={(position) => topOf(view, position)}
              />
            )}
            {view && state && askingLanguage && (
              <LanguagePanel
                view={view}
                state={state}
                top={(position) => topOf(view, position)}
                book={language}
                onClose={() => setAskingLanguage(false)}
              />
            )}
            {view && state && !isLineOpen && (
              <AnchorPanel
                view={view}
                state={state}
                top={(position) => topOf(view, position)}
                usesOf={(id) => places?.find((one) => one.id === id)?.uses ?? 0}
              />
            )}
            {view && state && !isLineOpen && (
              <PicturePanel
                view={view}
                state={state}
                top={(position) => topOf(view, position)}
                onLink={() => openLine(view)}
                onHotspots={setAreasAt}
                onReplace={async (file) => (await storePicture(bookId, file)).id}
              />
            )}
          </div>
        </div>
        {wide && (
          <div className="py-12 pr-4 xl:pr-6">
            {view && context && <Margin view={view} uses={uses} active={active} context={context} />}
          </div>
        )}
      </div>
      {!wide && !isCovered && !isLineOpen && view && context && (
        <CardsDrawer
          view={view}
          uses={uses}
          active={active}
          context={context}
          onStep={(step) => goToLink(view, step)}
        />
      )}
      {besideText &&
        state &&
        createPortal(<SetPagesColumn bookId={bookId} chapterId={chapterId} state={state} />, besideText)}
    </>
  );
}
