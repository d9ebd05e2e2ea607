import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { useQueryClient } from "@tanstack/react-query";
import { BookMarked, FileInput, GripVertical, Hash, PenLine, Plus, Trash2 } from "lucide-react";
import { useState, type KeyboardEvent } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { answerOf, api, type ChapterListing } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { telling } from "../frame/history";
import { offerUndo } from "../frame/undo-bar";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { plural } from "../parts/wording";
import { howToMove, movesAloud } from "./chapter-moves";
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
  chapters,
  current,
  renameCurrent,
}: {
  bookId: string;
  chapters: ChapterListing[];
  current: string | null;
  /** Renames the chapter that is being written; its text is in the editor, not on the server. */
  renameCurrent: (title: string) => void;
}) {
  const queries = useQueryClient();
  const stale = useStale();
  const navigate = useNavigate();
  const [renaming, setRenaming] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
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
  const number = (chapter: ChapterListing, role: "chapter" | "unnumbered"): void => {
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
  const move = ({ active, over }: DragEndEvent): void => {
    const from = chapters.findIndex((chapter) => chapter.id === active.id);
    const to = chapters.findIndex((chapter) => chapter.id === over?.id);
    // A chapter stays among the chapters, a companion page among its own.
    const isApart = (at: number): boolean => chapters[at]!.role === "companion";
    if (to === -1 || from === to || isApart(from) !== isApart(to)) return;
    const moved = arrayMove(chapters, from, to);
    queries.setQueryData(keys.chapters(bookId), moved);
    const put = async (order: ChapterListing[]): Promise<void> => {
      await answerOf(
        api.PUT("/api/books/{bookId}/chapters/order", {
          params: { path },
          body: { chapters: order.map(({ id }) => id) },
        }),
      );
      await refresh();
    };
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

  const group = (rows: ChapterListing[], numbered: boolean) => (
    <SortableContext items={rows.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
      <ol className="mt-1">
        {rows.map((chapter, i) => (
          <ChapterRow
            key={chapter.id}
            bookId={bookId}
            chapter={chapter}
            number={
              numbered && chapter.role === "chapter"
                ? rows.slice(0, i + 1).filter(({ role }) => role === "chapter").length
                : null
            }
            current={chapter.id === current}
            renaming={renaming === chapter.id}
            onRename={() => setRenaming(chapter.id)}
            onRenamed={(title) => rename(chapter, title)}
            onNumber={(role) => number(chapter, role)}
            onDelete={() => remove(chapter)}
          />
        ))}
      </ol>
    </SortableContext>
  );
  return (
    <nav
      aria-label="Chapters"
      className="flex h-full flex-col overflow-y-auto border-r border-hairline bg-paper py-4"
    >
      {problem && <Problem>{problem}</Problem>}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements: movesAloud(chapters), screenReaderInstructions: howToMove }}
        onDragEnd={move}
      >
        <h2 className="px-5 text-sm text-faint">Chapters</h2>
        {group(inOrder, true)}
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
        {group(companions, false)}
        <Button kind="quiet" className="mt-2 ml-4 self-start" onClick={() => void add("companion")}>
          <Plus aria-hidden size={15} /> Add a page
        </Button>
      </DndContext>
    </nav>
  );
}

function ChapterRow({
  bookId,
  chapter,
  number,
  current,
  renaming,
  onRename,
  onRenamed,
  onNumber,
  onDelete,
}: {
  bookId: string;
  chapter: ChapterListing;
  /** Its place among the chapters; null for one without a number, a part or a companion page. */
  number: number | null;
  current: boolean;
  renaming: boolean;
  onRename: () => void;
  onRenamed: (title: string) => void;
  onNumber: (role: "chapter" | "unnumbered") => void;
  onDelete: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: chapter.id,
  });
  const name = chapter.title || "Untitled chapter";
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === "F2") onRename();
    else if (event.key === "Delete") onDelete();
    else return;
    event.preventDefault();
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`group relative flex items-start pr-3 pl-1 ${current ? "bg-blue-wash" : ""} ${isDragging ? "z-10 bg-paper shadow-md" : ""}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move “${name}”`}
        className="mt-1 min-h-[24px] min-w-[24px] shrink-0 cursor-grab p-1 text-edge opacity-0 group-hover:opacity-100 focus-visible:opacity-100 [@media(hover:none)]:opacity-100"
      >
        <GripVertical aria-hidden size={15} />
      </button>
      {renaming ? (
        <RenameField title={chapter.title} onDone={onRenamed} />
      ) : (
        <NavLink
          to={`/books/${bookId}/write/${chapter.id}`}
          onKeyDown={onKeyDown}
          className={`min-w-0 grow py-1.5 leading-snug hover:text-blue ${current ? "font-semibold" : ""}`}
        >
          {number !== null && <span className="mr-1.5 text-faint tabular-nums">{number}</span>}
          {chapter.role === "part" && (
            <BookMarked aria-hidden size={14} className="mr-1.5 inline text-faint" />
          )}
          <span className="font-serif [overflow-wrap:anywhere]">{name}</span>
          <span className="block text-[0.8rem] font-normal text-faint">
            {chapter.role === "part" && "Part, "}
            {plural(chapter.links, "link")}
            {chapter.role === "companion" && !chapter.written && ", not written yet"}
          </span>
        </NavLink>
      )}
      {!renaming && (
        <span className="absolute right-1 bottom-1 flex bg-paper opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 [@media(hover:none)]:opacity-100">
          {(chapter.role === "chapter" || chapter.role === "unnumbered") && (
            <button
              type="button"
              aria-label={`Number “${name}”`}
              aria-pressed={chapter.role === "chapter"}
              data-tip="With or without a number"
              onClick={() => onNumber(chapter.role === "chapter" ? "unnumbered" : "chapter")}
              className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-blue"
            >
              <Hash aria-hidden size={14} />
            </button>
          )}
          <button
            type="button"
            aria-label={`Rename “${name}”`}
            data-tip="Rename (F2)"
            onClick={onRename}
            className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-blue"
          >
            <PenLine aria-hidden size={14} />
          </button>
          <button
            type="button"
            aria-label={`Delete “${name}”`}
            data-tip="Delete (Delete)"
            onClick={onDelete}
            className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-red"
          >
            <Trash2 aria-hidden size={14} />
          </button>
        </span>
      )}
    </li>
  );
}

function RenameField({ title, onDone }: { title: string; onDone: (title: string) => void }) {
  const [value, setValue] = useState(title);
  return (
    <input
      autoFocus
      aria-label="Title of the chapter"
      value={value}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setValue(event.target.value)}
      onBlur={() => onDone(value.trim())}
      onKeyDown={(event) => {
        if (event.key === "Enter") onDone(value.trim());
        if (event.key === "Escape") onDone(title);
      }}
      className="my-1 w-full border-b border-blue bg-transparent font-serif"
    />
  );
}
