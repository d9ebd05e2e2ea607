import { useQueryClient } from "@tanstack/react-query";
import { sameDestination, type Destination } from "@vennet/core/destination/destination";
import { readChapter, withTitle, type ChapterJson } from "@vennet/core/manuscript/chapter";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { pictureAttrs, referenceAttrs } from "@vennet/core/manuscript/schema";
import { closeHistory } from "prosemirror-history";
import { NodeSelection, type Command, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { lazy, startTransition, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { createPortal, flushSync } from "react-dom";
import { useNavigate, useSearchParams } from "react-router";
import { answerOf, api, sendForm, type LinkState, type StoredCompanions } from "../api/client";
import { useBook } from "../book-page";
import { useBookChanges } from "../book-changes";
import { destinationQueries, useDestinationNames, usePlaces } from "../known-destinations";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { useWideWindow } from "../parts/use-wide-window";
import { AnchorPanel } from "./editor/anchor-panel";
import { adoptText } from "./editor/adopt-text";
import { createEditor } from "./editor/create-editor";
import { insertPicture } from "./editor/insert-commands";
import {
  editLink,
  insertLinkedWords,
  linkWords,
  removeLink,
  selectLink,
  wordsOfSelection,
} from "./editor/link-commands";
import { bookAround } from "./editor/book-numbers";
import { useBookNumbers, useToldFindings } from "./editor/use-book-numbers";
import { linkAtSelection, tellLinkMarks } from "./editor/link-marks";
import { storePicture } from "./editor/store-picture";
import { lookProperties } from "./editor/look-properties";
import { PicturePanel } from "./editor/picture-panel";
import { SignpostsPanel } from "./editor/signposts-panel";
import { Toolbar } from "./editor/toolbar";
import { LinkLine, type TakenLine } from "./links/link-line";
import { LinkStrip } from "./links/link-strip";
import { Margin } from "./links/margin";
import type { CardActions, CardContext } from "./links/margin-card";
import { lineAt, placesNearby, type OpenLine } from "./links/open-line";
import { useTakenLink } from "./links/taken-link";
import { useLinkStates } from "./links/use-link-states";
import { useCheckBasis } from "./links/use-check-basis";
import { useAcceptances } from "./links/use-acceptances";
import { useFindings } from "./links/use-findings";
import { MentionsPanel } from "./mentions/mentions-panel";
import { useAnchorMarks } from "./places/anchor-marks";
import { leaveFootprint, showFootprint, showPlace } from "./places/show-place";
import { useTrail } from "./places/trail";
import { referenceInfo } from "./references/reference-forms";
import { useReferenceLine } from "./references/use-reference-line";
import { ChapterSaver } from "./saving/chapter-saver";

// Drawing needs a library that nothing else on this page does.
const HotspotBench = lazy(() =>
  import("./hotspots/hotspot-bench").then((module) => ({ default: module.HotspotBench })),
);

// So does the reader of PDF.
const SetPagesColumn = lazy(() =>
  import("./pages/set-pages").then((module) => ({ default: module.SetPagesColumn })),
);

/** What the page around the editor may ask of it. */
export interface EditorHandle {
  rename: (title: string) => void;
  /** Goes to a place of the chapter; false where it has none of that id. */
  goTo: (place: string) => boolean;
}

/** The page of one chapter with its margin: the text, the link line, the margin cards. */
export function ChapterEditor({
  bookId,
  chapterId,
  document: json,
  unsent,
  saver,
  handle,
  besideText,
}: {
  bookId: string;
  chapterId: string;
  document: ChapterJson;
  unsent: boolean;
  saver: ChapterSaver;
  handle: (handle: EditorHandle | null) => void;
  /** Where the set pages are shown; null where they are not. */
  besideText: HTMLElement | null;
}) {
  const place = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<EditorView | null>(null);
  const [state, setState] = useState<EditorState | null>(null);
  const [line, setLine] = useState<OpenLine | null>(null);
  const [following, setFollowing] = useState<string | null>(null);
  const [mentionsOf, setMentionsOf] = useState<LinkUse | null>(null);
  const [benchAt, setBenchAt] = useState<number | null>(null);
  const [madePage, setMadePage] = useState<{ id: string; title: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { looks: bookLooks } = useBook();
  const looks = useMemo(() => lookProperties(bookLooks), [bookLooks]);
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const wide = useWideWindow(besideText !== null);
  const states = useLinkStates(bookId);
  const names = useDestinationNames(bookId);
  const places = usePlaces(bookId).data;
  const latestNames = useRef(names);
  latestNames.current = names;
  const { shown: anchorsShown, show: showAnchors } = useAnchorMarks();
  const around = state && bookAround(state);
  const acceptances = useAcceptances(
    bookId,
    useCallback(() => saver.settle(), [saver]),
  );
  const findings = useFindings(state?.doc ?? null, useCheckBasis(bookId, chapterId, states));
  useBookNumbers(view);
  useToldFindings(view, findings);

  const topOf = useCallback((editor: EditorView, position: number): number => {
    return editor.coordsAtPos(position).bottom - editor.dom.getBoundingClientRect().top + 8;
  }, []);

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

  const { openReference, referenceLine } = useReferenceLine(topOf);

  const goToLink = useCallback((editor: EditorView, step: 1 | -1): void => {
    const uses = linkUses(editor.state.doc);
    const active = linkAtSelection(editor.state);
    const { from } = editor.state.selection;
    const at = active ? uses.findIndex(({ id }) => id === active.id) : -1;
    const next =
      step === 1
        ? at === -1
          ? (uses.find((use) => use.from > from) ?? uses[0])
          : uses[(at + 1) % uses.length]
        : at === -1
          ? (uses.findLast((use) => use.to < from) ?? uses.at(-1))
          : uses.at(at - 1);
    if (next) editor.dispatch(selectLink(editor.state, next));
  }, []);

  const giveTaken = useCallback((editor: EditorView): void => {
    const { taken } = useTakenLink.getState();
    const { from, to } = wordsOfSelection(editor.state);
    const use = linkAtSelection(editor.state);
    if (!taken) setProblem("No link has been copied yet. Put the cursor into one and press Alt L.");
    else if (use) editor.dispatch(editLink(editor.state, use, { destination: taken.destination }));
    else if (from < to) editor.dispatch(linkWords(editor.state, from, to, taken));
    else editor.dispatch(insertLinkedWords(editor.state, taken.text, taken));
  }, []);

  const follow = useCallback((editor: EditorView, use: LinkUse | null): void => {
    if (use) editor.dispatch(selectLink(editor.state, use));
    setFollowing(use?.id ?? null);
  }, []);

  useEffect(() => {
    const linkKey =
      (work: (editor: EditorView) => void): Command =>
      (_state, _dispatch, editor) => {
        if (editor) work(editor);
        return true;
      };
    const editor: EditorView = createEditor(
      place.current!,
      readChapter(json),
      { bookId, chapterId },
      {
        onState: (next, toSave) => {
          // The text is on the page already; what stands around it may come a moment later than the next key.
          // The fields about a selected picture are bound to it, so they may not.
          if (next.selection instanceof NodeSelection) setState(next);
          else startTransition(() => setState(next));
          if (toSave) saver.changed(next.doc);
        },
        onFollow: (use) => follow(editor, use),
        onGoTo: (id) => latestGoToPlace.current(id),
        names: () => latestNames.current,
        linkKeys: {
          "Mod-k": linkKey(openLine),
          "Alt-r": linkKey(openReference),
          "Mod-s": linkKey(() => saver.saveNow()),
          "Alt-ArrowDown": linkKey((editor) => goToLink(editor, 1)),
          "Alt-ArrowUp": linkKey((editor) => goToLink(editor, -1)),
          "Mod-Enter": linkKey((editor) => follow(editor, linkAtSelection(editor.state))),
          "Alt-l": linkKey((editor) => {
            const use = linkAtSelection(editor.state);
            if (use) useTakenLink.getState().take(use);
          }),
          "Alt-b": linkKey(() => latestGoBack.current()),
          "Alt-Shift-l": linkKey(giveTaken),
          "Alt-Shift-L": linkKey(giveTaken),
        },
      },
    );
    setView(editor);
    setState(editor.state);
    if (unsent) {
      saver.changed(editor.state.doc);
      saver.saveNow();
    }
    handle({
      goTo: (place) => {
        leaveFootprint(editor, chapterId);
        return showPlace(editor, place);
      },
      rename: (title) => {
        const renamed = withTitle(editor.state.doc, title).firstChild!;
        editor.dispatch(
          editor.state.tr.replaceWith(1, editor.state.doc.firstChild!.nodeSize - 1, renamed.content),
        );
      },
    });
    return () => {
      handle(null);
      editor.destroy();
      setView(null);
    };
    // The editor lives as long as the opened text; a new text is a new editor.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [json]);

  useEffect(() => {
    if (!view) return;
    const linkStates = new Map<string, LinkState>(
      [...states].map(([address, { state }]) => [address, state]),
    );
    view.dispatch(tellLinkMarks(view.state.tr, { states: linkStates }));
  }, [view, states]);

  // What the server has changed by itself is shown in place of the open text.
  const changes = useBookChanges();
  const seenChanges = useRef(changes.count);
  useEffect(() => {
    if (!view || seenChanges.current === changes.count) return;
    seenChanges.current = changes.count;
    if (!changes.chapters.has(chapterId)) return;
    const path = { bookId, chapterId };
    answerOf(api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path } })).then(
      (chapter) => {
        // Unsaved text meets the new one when it is saved, and the author chooses then.
        if (view.isDestroyed || saver.status.getState().is !== "saved") return;
        const change = adoptText(view.state, readChapter(chapter.document));
        if (change) view.dispatch(change);
        saver.adopt(chapter.revision);
      },
      (error: unknown) => setProblem((error as Error).message),
    );
  }, [view, changes, bookId, chapterId, saver]);

  const goToPlace = useCallback(
    (id: string): void => {
      if (!view) return;
      leaveFootprint(view, chapterId);
      if (showPlace(view, id)) return;
      const elsewhere = places?.find((one) => one.id === id);
      if (elsewhere) void navigate(`/books/${bookId}/write/${elsewhere.chapterId}?place=${id}`);
      else setProblem("That place is not in the book any more.");
    },
    [view, places, navigate, bookId, chapterId],
  );

  const latestGoToPlace = useRef(goToPlace);
  latestGoToPlace.current = goToPlace;

  const goBack = useCallback((): void => {
    const footprint = useTrail.getState().back();
    if (!footprint) return;
    if (footprint.chapterId === chapterId && view) showFootprint(view, footprint);
    else
      void navigate(
        `/books/${bookId}/write/${footprint.chapterId}?at=${footprint.from}-${footprint.to}-${Math.round(footprint.scrolled)}`,
      );
  }, [view, chapterId, navigate, bookId]);
  const latestGoBack = useRef(goBack);
  latestGoBack.current = goBack;

  // A link or place that another page points to is shown and selected.
  const [wantedLink, wantedPlace, wantedAt] = [search.get("link"), search.get("place"), search.get("at")];
  useEffect(() => {
    if (!view || (!wantedLink && !wantedPlace && !wantedAt)) return;
    const use = linkUses(view.state.doc).find((candidate) => candidate.id === wantedLink);
    if (use) {
      view.dispatch(selectLink(view.state, use));
      view.focus();
    }
    if (wantedPlace) showPlace(view, wantedPlace);
    const [from, to, scrolled] = wantedAt?.split("-").map(Number) ?? [];
    if (from !== undefined) showFootprint(view, { from, to: to ?? from, scrolled: scrolled ?? 0 });
    setSearch({}, { replace: true });
  }, [view, wantedLink, wantedPlace, wantedAt, setSearch]);

  const closeLine = useCallback((): void => {
    setLine(null);
    if (!view || view.isDestroyed) return;
    view.dispatch(tellLinkMarks(view.state.tr, { pending: null }));
    view.focus();
  }, [view]);

  const takeLine = ({ from, to, use, words: before }: OpenLine, taken: TakenLine): void => {
    closeLine();
    const { destination, words, description } = taken;
    view!.dispatch(closeHistory(view!.state.tr));
    const text = words === "" || words === before ? undefined : words;
    const link = { destination, description };
    if (use?.on === "reference" && destination.kind !== "place") {
      setProblem("A cross-reference follows a place in the book. Choose one, or delete it and make a link.");
      return;
    }
    if (use) view!.dispatch(editLink(view!.state, use, text === undefined ? link : { ...link, text }));
    else if (from === to) view!.dispatch(insertLinkedWords(view!.state, words, link));
    else view!.dispatch(linkWords(view!.state, from, to, link, text));
  };

  const refresh = useCallback(async (): Promise<void> => {
    await Promise.all(
      [...destinationQueries, "chapters"].map((name) =>
        queries.invalidateQueries({ queryKey: [name, bookId] }),
      ),
    );
  }, [queries, bookId]);

  const makePage = async (title: string): Promise<Destination> => {
    const made = await answerOf(
      api.POST("/api/books/{bookId}/chapters", {
        params: { path: { bookId } },
        body: { title, role: "companion" },
      }),
    );
    const top = readChapter(made.document).firstChild!;
    setMadePage({ id: made.id, title });
    void refresh();
    return { kind: "place", target: top.attrs["id"] as string };
  };

  const bringFile = async (file: File): Promise<Destination> => {
    const form = new FormData();
    form.set("file", file);
    const { stored, refused } = await sendForm<StoredCompanions>(`/api/books/${bookId}/files`, form);
    if (!stored[0]) throw new Error(refused[0]?.message ?? "The file was not taken.");
    if (stored[0].warning) setProblem(stored[0].warning);
    void refresh();
    return { kind: "file", file: stored[0].file.id };
  };

  const actions = useMemo((): CardActions | null => {
    if (!view) return null;
    // A card may be a moment older than the text; what is done to its link is done where that stands now.
    const dispatch = ({ id }: LinkUse, make: (now: EditorState, use: LinkUse) => EditorState["tr"]): void => {
      const use = linkUses(view.state.doc).find((candidate) => candidate.id === id);
      if (use) view.dispatch(make(view.state, use));
    };
    return {
      select: (use) => {
        dispatch(use, selectLink);
        setFollowing(null);
      },
      change: (use, to) => {
        if (to.destination && sameDestination(use.destination, to.destination)) delete to.destination;
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, (now, fresh) => editLink(now, fresh, to));
      },
      say: (use, to) => {
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, (now, fresh) => {
          const attrs = { ...referenceAttrs(now.doc.nodeAt(fresh.from)!), ...to };
          const change = now.tr.setNodeMarkup(fresh.from, null, attrs);
          return change.setSelection(NodeSelection.create(change.doc, fresh.from));
        });
      },
      remove: (use) => {
        view.dispatch(closeHistory(view.state.tr));
        dispatch(use, removeLink);
        view.focus();
      },
      openLine: (use) => {
        dispatch(use, selectLink);
        openLine(view);
      },
      everyMention: setMentionsOf,
      take: (use) => useTakenLink.getState().take(use),
      goTo: (id) => {
        setFollowing(null);
        goToPlace(id);
      },
      leave: () => view.focus(),
      follow: (use) => setFollowing(use?.id ?? null),
    };
  }, [view, openLine, goToPlace]);

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
  const benchPicture = benchAt === null ? null : (state?.doc.nodeAt(benchAt) ?? null);
  const isCovered = mentionsOf !== null || benchPicture !== null;
  const uses = state ? linkUses(state.doc) : [];
  const active = state ? linkAtSelection(state) : null;
  return (
    <>
      {view && state && !isCovered && (
        <Toolbar
          view={view}
          state={state}
          onLink={() => openLine(view)}
          onGive={() => giveTaken(view)}
          onBack={goBack}
          onPicture={(file) => void addPicture(file)}
          onReference={() => openReference(view)}
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
      {madePage && (
        <div
          role="status"
          className="flex flex-wrap items-center gap-3 border-b border-hairline bg-blue-wash px-4 py-1.5"
        >
          <span>The page “{madePage.title}” is made and linked. It has no words yet.</span>
          <Button kind="main" onClick={() => void navigate(`/books/${bookId}/write/${madePage.id}`)}>
            Write it now
          </Button>
          <Button kind="quiet" onClick={() => setMadePage(null)}>
            Later
          </Button>
        </div>
      )}
      {mentionsOf && (
        <MentionsPanel
          bookId={bookId}
          chapterId={chapterId}
          use={mentionsOf}
          settle={() => saver.settle()}
          onDone={() => {
            setMentionsOf(null);
            void refresh();
          }}
        />
      )}
      {benchPicture && benchAt !== null && view && (
        <Suspense fallback={<Waiting what="Opening the picture" />}>
          <HotspotBench
            bookId={bookId}
            picture={pictureAttrs(benchPicture)}
            onMakePage={makePage}
            onBringFile={bringFile}
            onDone={(hotspots) => {
              if (hotspots) {
                const change = closeHistory(view.state.tr).setNodeAttribute(benchAt, "hotspots", hotspots);
                view.dispatch(change.setSelection(NodeSelection.create(change.doc, benchAt)));
              }
              setBenchAt(null);
            }}
          />
        </Suspense>
      )}
      {!wide && !isCovered && view && context && (
        <LinkStrip
          count={uses.length}
          active={active}
          context={context}
          onStep={(step) => goToLink(view, step)}
        />
      )}
      <div
        // The editor stays where it is, since its text lives in this element.
        className={`mx-auto my-6 ${isCovered ? "hidden" : "grid"} w-fit max-w-full min-w-0 bg-paper shadow-[0_0_0_1px_var(--hairline)] ${wide ? "grid-cols-[minmax(0,36rem)_15.5rem] gap-x-10" : ""}`}
      >
        <div className={`relative min-w-0 px-6 py-12 md:pl-14 ${wide ? "pr-0" : ""}`}>
          <div className="relative">
            <div ref={place} style={looks} className={anchorsShown ? "" : "anchors-hidden"} />
            {referenceLine}
            {view && state && around && !line && (
              <SignpostsPanel
                view={view}
                state={state}
                index={around.index}
                top={(position) => topOf(view, position)}
              />
            )}
            {line && view && (
              <div className="absolute right-0 left-0 z-20" style={{ top: line.top }}>
                <LinkLine
                  key={`${line.from}-${line.to}`}
                  bookId={bookId}
                  nearby={line.nearby}
                  destination={line.use?.destination ?? null}
                  words={line.words}
                  description={line.use?.description ?? null}
                  wordsLabel={line.wordsLabel}
                  onLeave={closeLine}
                  onTake={(taken) => takeLine(line, taken)}
                  onMakePage={makePage}
                  onBringFile={bringFile}
                />
              </div>
            )}
            {view && state && !line && (
              <AnchorPanel
                view={view}
                state={state}
                top={(position) => topOf(view, position)}
                usesOf={(id) => places?.find((one) => one.id === id)?.uses ?? 0}
              />
            )}
            {view && state && !line && (
              <PicturePanel
                view={view}
                state={state}
                top={(position) => topOf(view, position)}
                onLink={() => openLine(view)}
                onHotspots={setBenchAt}
                onReplace={async (file) => (await storePicture(bookId, file)).id}
              />
            )}
          </div>
        </div>
        {wide && (
          <div className="py-12 pr-6">
            {view && context && <Margin view={view} uses={uses} active={active} context={context} />}
          </div>
        )}
      </div>
      {besideText &&
        state &&
        createPortal(
          <Suspense fallback={<Waiting what="Setting the pages" />}>
            <SetPagesColumn bookId={bookId} chapterId={chapterId} state={state} />
          </Suspense>,
          besideText,
        )}
    </>
  );
}
