import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { arrayMove, SortableContext, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { FileInput, Plus } from "lucide-react";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answerOf, api, type ChapterListing } from "../api/client";
import { useStale } from "../api/stale";
import { telling } from "../frame/history";
import { offerUndo } from "../frame/undo-bar";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { howToMove, movesAloud } from "./chapter-moves";
import { ChapterRow, type ChapterActions } from "./chapter-row";
import { useMovesByKey } from "./moves-by-key";
import { useOrderOnWay } from "./order-on-way";
import { useRowsInView, useScrolledTo } from "./rows-in-view";
import { useGoneWithChapters } from "./places/gone-with-chapters";

/** What a new one is called, with its number, until its author says. */
const newTitles: Readonly<Record<ChapterListing["role"], string>> = {
  chapter: "Chapter",
  unnumbered: "Chapter",
  part: "Part",
  companion: "Page",
};

/** The book's chapters in order: open, add, rename, move, delete. */
export function ChapterList({
  bookId,
  chapters: listed,
  current,
  renameCurrent,
}: {
  bookId: string;
  chapters: ChapterListing[];
  current: string | null;
  /** Renames the chapter that is being written; its text is in the editor, not on the server. */
  renameCurrent: (title: string) => void;
}) {
  const { chapters, showWhile } = useOrderOnWay(listed);
  const stale = useStale();
  const navigate = useNavigate();
  const [renaming, setRenaming] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const list = useRef<HTMLElement>(null);
  const inView = useRowsInView(list);
  useScrolledTo(list, current);
  // These stay whole where they are scrolled out of view.
  const [focused, setFocused] = useState<string | null>(null);
  const [dragged, setDragged] = useState<string | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const path = { bookId };
  // Numbers, lists and what links lead to follow the chapters.
  const refresh = (): Promise<void> => stale("chapters");

  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
    }
    await refresh();
  };
  const inOrder = chapters.filter(({ role }) => role !== "companion");
  const companions = chapters.filter(({ role }) => role === "companion");
  const ofRole = (role: ChapterListing["role"]): number =>
    chapters.filter((chapter) => chapter.role === role).length;
  const add = (role: ChapterListing["role"]): Promise<void> =>
    attempt(async () => {
      const title = `${newTitles[role]} ${ofRole(role) + 1}`;
      const made = await answerOf(
        api.POST("/api/books/{bookId}/chapters", { params: { path }, body: { title, role } }),
      );
      await refresh();
      await navigate(`/books/${bookId}/write/${made.id}`);
    });
  const rename = (chapter: ChapterListing, title: string): void => {
    setRenaming(null);
    if (title === "" || title === chapter.title) return;
    if (chapter.id === current) {
      renameCurrent(title);
      return;
    }
    const params = { path: { bookId, chapterId: chapter.id } };
    const give = async (to: string): Promise<void> => {
      await answerOf(api.PATCH("/api/books/{bookId}/chapters/{chapterId}", { params, body: { title: to } }));
      await refresh();
    };
    void attempt(async () => {
      await telling(give(title), (made) => ({
        bookId,
        message: `“${chapter.title}” is called “${title}” now.`,
        undo: () => made.then(() => give(chapter.title)),
        redo: () => give(title),
      }));
    });
  };
  const setNumbered = (chapter: ChapterListing, role: "chapter" | "unnumbered"): void => {
    const params = { path: { bookId, chapterId: chapter.id } };
    const make = async (now: "chapter" | "unnumbered"): Promise<void> => {
      await answerOf(api.PATCH("/api/books/{bookId}/chapters/{chapterId}", { params, body: { role: now } }));
      await refresh();
    };
    const before = role === "chapter" ? "unnumbered" : "chapter";
    const has = role === "chapter" ? "has a number" : "has no number";
    void attempt(() =>
      telling(make(role), (made) => ({
        bookId,
        message: `“${chapter.title || "Untitled chapter"}” ${has} now.`,
        undo: () => made.then(() => make(before)),
        redo: () => make(role),
      })),
    );
  };
  const gonePlaces = () => answerOf(api.GET("/api/books/{bookId}/places/gone", { params: { path } }));
  const remove = (chapter: ChapterListing): void => {
    const params = { path: { bookId, chapterId: chapter.id } };
    void attempt(async () => {
      const before = new Set((await gonePlaces()).map(({ id }) => id));
      await answerOf(api.DELETE("/api/books/{bookId}/chapters/{chapterId}", { params }));
      const gone = (await gonePlaces()).filter(({ id }) => !before.has(id));
      useGoneWithChapters.getState().tell(gone.map(({ id }) => id));
      const names = gone.map(({ name }) => `“${name}”`);
      const led = names.length > 0 ? ` Links still lead to ${names.join(", ")} in it.` : "";
      offerUndo({
        bookId,
        message: `“${chapter.title || "Untitled chapter"}” was deleted.${led}`,
        undo: async () => {
          await answerOf(api.POST("/api/books/{bookId}/chapters/{chapterId}/restore", { params }));
          await refresh();
          await navigate(`/books/${bookId}/write/${chapter.id}`);
        },
        redo: async () => {
          await answerOf(api.DELETE("/api/books/{bookId}/chapters/{chapterId}", { params }));
          await refresh();
          if (location.pathname.includes(chapter.id)) await navigate(`/books/${bookId}/write`);
        },
      });
      const left = chapters.filter((other) => other.id !== chapter.id);
      if (chapter.id === current) await navigate(`/books/${bookId}/write${left[0] ? `/${left[0].id}` : ""}`);
    });
  };
  const move = (id: string, toPlaceOf: string | undefined): void => {
    const from = chapters.findIndex((chapter) => chapter.id === id);
    const to = chapters.findIndex((chapter) => chapter.id === toPlaceOf);
    // A chapter stays among the chapters, a companion page among its own.
    const isApart = (at: number): boolean => chapters[at]!.role === "companion";
    if (from === -1 || to === -1 || from === to || isApart(from) !== isApart(to)) return;
    const moved = arrayMove(chapters, from, to);
    const put = (order: ChapterListing[]): Promise<void> =>
      showWhile(order, async () => {
        const body = { chapters: order.map(({ id }) => id) };
        await answerOf(api.PUT("/api/books/{bookId}/chapters/order", { params: { path }, body }));
        await refresh();
      });
    void attempt(() =>
      telling(
        put(moved),
        (made) => ({
          bookId,
          message: `“${chapters[from]!.title || "Untitled chapter"}” was moved.`,
          undo: () => made.then(() => put(chapters)),
          redo: () => put(moved),
        }),
        offerUndo,
      ),
    );
  };

  const byKey = useMovesByKey(move);
  const actions = useSteadyActions({
    onMoveKey: (event, chapter) =>
      byKey.onKeyDown(event, chapter, chapter.role === "companion" ? companions : inOrder),
    onHandleLeft: byKey.leave,
    onRename: ({ id }) => setRenaming(id),
    onRenamed: rename,
    onNumber: setNumbered,
    onDelete: remove,
    onOpen: ({ id }) => void navigate(`/books/${bookId}/write/${id}`),
  });
  const group = (listed: ChapterListing[]) => {
    const rows = byKey.seen(listed);
    let counted = 0;
    return (
      <SortableContext items={rows.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <ol className="mt-1">
          {rows.map((chapter, i) => {
            const isHeld = byKey.isHeld(chapter);
            const isAtWork = isHeld || [focused, dragged, renaming].includes(chapter.id);
            return (
              <ChapterRow
                key={chapter.id}
                bookId={bookId}
                chapter={chapter}
                number={chapter.role === "chapter" ? ++counted : null}
                current={chapter.id === current}
                renaming={renaming === chapter.id}
                heldAt={isHeld ? i : null}
                isSeen={isAtWork || inView.has(chapter.id)}
                actions={actions}
              />
            );
          })}
        </ol>
      </SortableContext>
    );
  };
  return (
    <nav
      ref={list}
      aria-label="Chapters"
      onFocus={({ target }) =>
        setFocused(target.closest<HTMLElement>("[data-chapter]")?.dataset["chapter"] ?? null)
      }
      className="flex h-full flex-col overflow-y-auto border-r border-hairline bg-paper py-4"
    >
      {problem && <Problem>{problem}</Problem>}
      <p role="status" className="sr-only">
        {byKey.said}
      </p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements: movesAloud(chapters), screenReaderInstructions: howToMove }}
        onDragStart={({ active }) => setDragged(String(active.id))}
        onDragCancel={() => setDragged(null)}
        onDragEnd={({ active, over }) => {
          setDragged(null);
          move(String(active.id), over ? String(over.id) : undefined);
        }}
      >
        <h2 className="px-5 text-sm text-faint">Chapters</h2>
        {group(inOrder)}
        <Button kind="quiet" className="mt-2 ml-4 self-start" onClick={() => void add("chapter")}>
          <Plus aria-hidden size={15} /> Add a chapter
        </Button>
        <Button kind="quiet" className="mt-1 ml-4 self-start" onClick={() => void add("part")}>
          <Plus aria-hidden size={15} /> Add a part
        </Button>
        <Link
          to={`/books/${bookId}/bring-in`}
          className="mt-1 ml-4 inline-flex min-h-7 items-center gap-1.5 self-start px-1 text-[0.93rem] underline decoration-edge underline-offset-4 hover:text-blue hover:decoration-blue"
        >
          <FileInput aria-hidden size={15} /> Bring in a manuscript
        </Link>
        <h2 className="mt-5 px-5 text-sm text-faint">Companion pages</h2>
        {group(companions)}
        <Button kind="quiet" className="mt-2 ml-4 self-start" onClick={() => void add("companion")}>
          <Plus aria-hidden size={15} /> Add a page
        </Button>
      </DndContext>
    </nav>
  );
}

/** Actions that stay the same from one drawing to the next, and do what the last one gave: rows that do not change are not drawn anew. */
function useSteadyActions(given: ChapterActions): ChapterActions {
  const now = useRef(given);
  useLayoutEffect(() => {
    now.current = given;
  });
  return useMemo(
    () => ({
      onMoveKey: (event, chapter) => now.current.onMoveKey(event, chapter),
      onHandleLeft: (chapter) => now.current.onHandleLeft(chapter),
      onRename: (chapter) => now.current.onRename(chapter),
      onRenamed: (chapter, title) => now.current.onRenamed(chapter, title),
      onNumber: (chapter, role) => now.current.onNumber(chapter, role),
      onDelete: (chapter) => now.current.onDelete(chapter),
      onOpen: (chapter) => now.current.onOpen(chapter),
    }),
    [],
  );
}
