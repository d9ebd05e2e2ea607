import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { BookMarked, GripVertical, Hash, PenLine, Trash2 } from "lucide-react";
import { useLayoutEffect, useRef, useState, type KeyboardEvent } from "react";
import { NavLink } from "react-router";
import type { ChapterListing } from "../api/client";
import { plural } from "../parts/wording";

/** A chapter in the list: taken up, opened, numbered, renamed, deleted. */
export function ChapterRow({
  bookId,
  chapter,
  number,
  current,
  renaming,
  heldAt,
  onMoveKey,
  onHandleLeft,
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
  /** The place at which it is held with the keys; null for one that is not. */
  heldAt: number | null;
  onMoveKey: (event: KeyboardEvent) => void;
  onHandleLeft: () => void;
  onRename: () => void;
  onRenamed: (title: string) => void;
  onNumber: (role: "chapter" | "unnumbered") => void;
  onDelete: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: chapter.id,
  });
  const handle = useRef<HTMLButtonElement>(null);
  // Whoever moves it through a long list sees where it is.
  useLayoutEffect(() => {
    if (heldAt !== null) handle.current?.closest("li")?.scrollIntoView({ block: "nearest" });
  }, [heldAt]);
  const isTaken = isDragging || heldAt !== null;
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
      className={`group relative flex items-start pr-3 pl-1 ${current ? "bg-blue-wash" : ""} ${isTaken ? "z-10 bg-paper shadow-md outline-1 -outline-offset-1" : ""}`}
    >
      <button
        type="button"
        ref={handle}
        {...attributes}
        {...listeners}
        aria-pressed={isTaken || undefined}
        onKeyDown={onMoveKey}
        onBlur={onHandleLeft}
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
