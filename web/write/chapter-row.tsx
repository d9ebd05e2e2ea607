import { BookMarked, Hash, PenLine, Trash2 } from "lucide-react";
import { memo, useLayoutEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from "react";
import type { ChapterListing } from "../api/client";
import { plural } from "../parts/wording";
import { ChapterHandle } from "./chapter-handle";

/** What can be done with a chapter in the list. */
export interface ChapterActions {
  onOpen: (chapter: ChapterListing) => void;
  onMoveKey: (event: KeyboardEvent, chapter: ChapterListing) => void;
  onHandleLeft: (chapter: ChapterListing) => void;
  onRename: (chapter: ChapterListing) => void;
  onRenamed: (chapter: ChapterListing, title: string) => void;
  onNumber: (chapter: ChapterListing, role: "chapter" | "unnumbered") => void;
  onDelete: (chapter: ChapterListing) => void;
}

interface Row {
  bookId: string;
  chapter: ChapterListing;
  /** Its place among the chapters; null for one without a number, a part or a companion page. */
  number: number | null;
  current: boolean;
  renaming: boolean;
  /** The place at which it is held with the keys; null for one that is not. */
  heldAt: number | null;
  /** Whether it is on the screen or in work; any other is as high, and has nothing but the link. */
  isSeen: boolean;
  /** The same from one drawing of the list to the next. */
  actions: ChapterActions;
}

/** A chapter in the list: taken up, opened, numbered, renamed, deleted. */
export const ChapterRow = memo(function ChapterRow(props: Row) {
  const { bookId, chapter, number, current, renaming, heldAt, isSeen, actions } = props;
  const row = useRef<HTMLLIElement>(null);
  // Whoever moves it through a long list sees where it is.
  useLayoutEffect(() => {
    if (heldAt !== null) row.current?.scrollIntoView({ block: "nearest" });
  }, [heldAt]);
  const name = chapter.title || "Untitled chapter";
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === "F2") actions.onRename(chapter);
    else if (event.key === "Delete") actions.onDelete(chapter);
    else return;
    event.preventDefault();
  };
  // A link of the router's own is drawn anew in every row whenever a chapter is opened.
  const open = (event: MouseEvent): void => {
    if (event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    actions.onOpen(chapter);
  };
  return (
    <li
      ref={row}
      data-chapter={chapter.id}
      className={`group relative flex items-start pr-3 pl-1 data-taken:z-10 data-taken:bg-paper data-taken:shadow-md data-taken:outline-1 data-taken:-outline-offset-1 ${current ? "bg-blue-wash" : ""}`}
    >
      {isSeen ? (
        <ChapterHandle
          row={row}
          id={chapter.id}
          name={name}
          isHeld={heldAt !== null}
          onMoveKey={(event) => actions.onMoveKey(event, chapter)}
          onLeft={() => actions.onHandleLeft(chapter)}
        />
      ) : (
        <span className="min-w-[24px] shrink-0" />
      )}
      {renaming ? (
        <RenameField title={chapter.title} onDone={(title) => actions.onRenamed(chapter, title)} />
      ) : (
        <a
          href={`/books/${bookId}/write/${chapter.id}`}
          onKeyDown={onKeyDown}
          onClick={open}
          aria-current={current ? "page" : undefined}
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
        </a>
      )}
      {isSeen && !renaming && <RowButtons chapter={chapter} name={name} actions={actions} />}
    </li>
  );
});

function RowButtons({ chapter, name, actions }: Pick<Row, "chapter" | "actions"> & { name: string }) {
  return (
    <span className="absolute right-1 bottom-1 flex bg-paper opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 [@media(hover:none)]:opacity-100">
      {(chapter.role === "chapter" || chapter.role === "unnumbered") && (
        <button
          type="button"
          aria-label={`Number “${name}”`}
          aria-pressed={chapter.role === "chapter"}
          data-tip="With or without a number"
          onClick={() => actions.onNumber(chapter, chapter.role === "chapter" ? "unnumbered" : "chapter")}
          className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-blue"
        >
          <Hash aria-hidden size={14} />
        </button>
      )}
      <button
        type="button"
        aria-label={`Rename “${name}”`}
        data-tip="Rename (F2)"
        onClick={() => actions.onRename(chapter)}
        className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-blue"
      >
        <PenLine aria-hidden size={14} />
      </button>
      <button
        type="button"
        aria-label={`Delete “${name}”`}
        data-tip="Delete (Delete)"
        onClick={() => actions.onDelete(chapter)}
        className="min-h-[24px] min-w-[24px] p-1 text-faint hover:text-red"
      >
        <Trash2 aria-hidden size={14} />
      </button>
    </span>
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
