import { useQuery, useQueryClient } from "@tanstack/react-query";
import { sameDestination, writeDestination } from "@vennet/core/destination/destination";
import { readChapter, withTitle, type ChapterJson } from "@vennet/core/manuscript/chapter";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { closeHistory } from "prosemirror-history";
import type { Command, EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { useSearchParams } from "react-router";
import { answerOf, api, sendForm, type LinkState } from "../api/client";
import { Problem } from "../parts/notice";
import { createEditor } from "./editor/create-editor";
import { insertPicture } from "./editor/insert-commands";
import {
  changeDestination,
  changeWords,
  insertLinkedWords,
  linkWords,
  removeLink,
  selectLink,
  withoutOuterBlanks,
} from "./editor/link-commands";
import { linkAtSelection, linksIn, tellLinkMarks } from "./editor/link-marks";
import { PicturePanel } from "./editor/picture-panel";
import { Toolbar } from "./editor/toolbar";
import { LinkLine } from "./links/link-line";
import { LinkStrip } from "./links/link-strip";
import { Margin } from "./links/margin";
import type { CardActions, CardState } from "./links/margin-card";
import { ChapterSaver } from "./saving/chapter-saver";
import { useWideWindow } from "./use-wide-window";

/** What the page around the editor may ask of it. */
export interface EditorHandle {
  rename: (title: string) => void;
}

interface OpenLine {
  from: number;
  to: number;
  top: number;
  use: LinkUse | null;
}

/** The page of one chapter with its margin: the text, the link line, the margin cards. */
export function ChapterEditor({
  bookId,
  document: json,
  unsent,
  saver,
  handle,
}: {
  bookId: string;
  document: ChapterJson;
  unsent: boolean;
  saver: ChapterSaver;
  handle: (handle: EditorHandle | null) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<EditorView | null>(null);
  const [state, setState] = useState<EditorState | null>(null);
  const [line, setLine] = useState<OpenLine | null>(null);
  const [following, setFollowing] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [search, setSearch] = useSearchParams();
  const wide = useWideWindow();
  const states = useLinkStates(bookId);

  const topOf = useCallback((editor: EditorView, position: number): number => {
    return editor.coordsAtPos(position).bottom - editor.dom.getBoundingClientRect().top + 8;
  }, []);

  const openLine = useCallback(
    (editor: EditorView): void => {
      const use = linkAtSelection(editor.state);
      const range = use ?? withoutOuterBlanks(editor.state);
      const { from, to } = range.from < range.to ? range : editor.state.selection;
      if (!use && editor.state.doc.resolve(from).parent.inlineContent === false) return;
      editor.dispatch(tellLinkMarks(editor.state, { pending: { from, to } }));
      // At once, so that no key that is typed next falls into the text.
      flushSync(() => setLine({ from, to, top: topOf(editor, to), use }));
    },
    [topOf],
  );

  const goToLink = useCallback((editor: EditorView, step: 1 | -1): void => {
    const uses = linksIn(editor.state.doc);
    const { from } = editor.state.selection;
    const next =
      step === 1
        ? (uses.find((use) => use.from > from) ?? uses[0])
        : (uses.findLast((use) => use.to < from || (use.from < from && use.to < editor.state.selection.to)) ??
          uses.at(-1));
    if (next) editor.dispatch(selectLink(editor.state, next));
  }, []);

  useEffect(() => {
    const linkKey =
      (work: (editor: EditorView) => void): Command =>
      (_state, _dispatch, editor) => {
        if (editor) work(editor);
        return true;
      };
    const editor = createEditor(place.current!, readChapter(json), bookId, {
      onState: (next, docChanged) => {
        setState(next);
        if (docChanged) saver.changed(next.doc);
      },
      linkKeys: {
        "Mod-k": linkKey(openLine),
        "Mod-s": linkKey(() => saver.saveNow()),
        "Alt-ArrowDown": linkKey((editor) => goToLink(editor, 1)),
        "Alt-ArrowUp": linkKey((editor) => goToLink(editor, -1)),
        "Mod-Enter": linkKey((editor) => setFollowing(linkAtSelection(editor.state)?.id ?? null)),
      },
    });
    setView(editor);
    setState(editor.state);
    if (unsent) {
      saver.changed(editor.state.doc);
      saver.saveNow();
    }
    handle({
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
    view.dispatch(tellLinkMarks(view.state, { states: linkStates }));
  }, [view, states]);

  // A link that another stage points to is shown and selected.
  const wanted = search.get("link");
  useEffect(() => {
    if (!view || !wanted) return;
    const use = linksIn(view.state.doc).find((candidate) => candidate.id === wanted);
    if (use) {
      view.dispatch(selectLink(view.state, use));
      view.focus();
    }
    setSearch({}, { replace: true });
  }, [view, wanted, setSearch]);

  const closeLine = useCallback((): void => {
    setLine(null);
    if (!view || view.isDestroyed) return;
    view.dispatch(tellLinkMarks(view.state, { pending: null }));
  }, [view]);

  const actions = useMemo((): CardActions | null => {
    if (!view) return null;
    const change = (transaction: (state: EditorState) => EditorState["tr"]): void => {
      view.dispatch(closeHistory(view.state.tr));
      view.dispatch(transaction(view.state));
    };
    return {
      select: (use) => {
        view.dispatch(selectLink(view.state, use));
        setFollowing(null);
      },
      changeWords: (use, words) => change((now) => changeWords(now, use, words)),
      changeDestination: (use, destination) => {
        if (!sameDestination(use.destination, destination))
          change((now) => changeDestination(now, use, destination));
      },
      remove: (use) => {
        change((now) => removeLink(now, use));
        view.focus();
      },
      leave: () => view.focus(),
      follow: (use) => setFollowing(use?.id ?? null),
    };
  }, [view]);

  const addPicture = async (file: File): Promise<void> => {
    setProblem(null);
    try {
      const form = new FormData();
      form.set("picture", file);
      const stored = await sendForm<{ id: string; name: string }>(`/api/books/${bookId}/pictures`, form);
      insertPicture(stored.id, stored.name)(view!.state, view!.dispatch, view!);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  const uses = state ? linksIn(state.doc) : [];
  const active = state ? linkAtSelection(state) : null;
  return (
    <>
      {view && state && (
        <Toolbar
          view={view}
          state={state}
          onLink={() => openLine(view)}
          onPicture={(file) => void addPicture(file)}
        />
      )}
      {problem && <Problem>{problem}</Problem>}
      {!wide && view && actions && (
        <LinkStrip
          uses={uses}
          active={active}
          states={states}
          following={following}
          actions={actions}
          onStep={(step) => goToLink(view, step)}
        />
      )}
      <div className="mx-auto my-6 grid w-fit max-w-full min-w-0 bg-paper shadow-[0_0_0_1px_var(--hairline)] min-[1100px]:grid-cols-[minmax(0,36rem)_15.5rem] min-[1100px]:gap-x-10">
        <div className="relative min-w-0 px-6 py-12 md:pl-14 min-[1100px]:pr-0">
          <div className="relative">
            <div ref={place} />
            {line && view && (
              <LinkLine
                key={`${line.from}-${line.to}`}
                top={line.top}
                initial={line.use ? writeDestination(line.use.destination) : ""}
                needsWords={line.from === line.to}
                onLeave={() => {
                  closeLine();
                  view.focus();
                }}
                onTake={(destination, words) => {
                  closeLine();
                  view.dispatch(closeHistory(view.state.tr));
                  if (line.use) view.dispatch(changeDestination(view.state, line.use, destination));
                  else if (line.from === line.to)
                    view.dispatch(insertLinkedWords(view.state, words, destination));
                  else view.dispatch(linkWords(view.state, line.from, line.to, destination));
                  view.focus();
                }}
              />
            )}
            {view && state && (
              <PicturePanel view={view} state={state} top={(position) => topOf(view, position)} />
            )}
          </div>
        </div>
        {wide && (
          <div className="py-12 pr-6">
            {view && actions && (
              <Margin
                view={view}
                uses={uses}
                states={states}
                active={active?.id ?? null}
                following={following}
                actions={actions}
              />
            )}
          </div>
        )}
      </div>
    </>
  );
}

function useLinkStates(bookId: string): Map<string, CardState> {
  const queries = useQueryClient();
  const destinations = useQuery({
    queryKey: ["destinations", bookId],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/destinations", { params: { path: { bookId } } })),
  });
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: ["destinations", bookId] });
  }, [queries, bookId]);
  return useMemo(
    () =>
      new Map(
        (destinations.data ?? []).map(({ address, state, reason, movedTo }) => [
          address,
          { state, reason, movedTo },
        ]),
      ),
    [destinations.data],
  );
}
