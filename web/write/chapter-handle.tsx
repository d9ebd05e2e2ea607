import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { useLayoutEffect, useRef, type KeyboardEvent, type RefObject } from "react";

/** By what a row of the list is taken up, with a pointer or the keys. While it is drawn, its row moves with what is dragged. */
export function ChapterHandle({
  row,
  id,
  name,
  isHeld,
  onMoveKey,
  onLeft,
}: {
  row: RefObject<HTMLLIElement | null>;
  id: string;
  name: string;
  /** Whether it is held with the keys. */
  isHeld: boolean;
  onMoveKey: (event: KeyboardEvent) => void;
  onLeft: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const handle = useRef<HTMLButtonElement>(null);
  const isTaken = isDragging || isHeld;
  const moved = CSS.Translate.toString(transform) ?? "";
  useLayoutEffect(() => {
    setNodeRef(row.current);
    return () => setNodeRef(null);
  }, [row, setNodeRef]);
  useLayoutEffect(() => {
    const item = row.current;
    if (!item) return;
    item.style.transform = moved;
    item.style.transition = transition ?? "";
    item.toggleAttribute("data-taken", isTaken);
    return () => {
      item.style.transform = item.style.transition = "";
      item.removeAttribute("data-taken");
    };
  }, [row, moved, transition, isTaken]);
  return (
    <button
      type="button"
      ref={handle}
      {...attributes}
      {...listeners}
      aria-pressed={isTaken || undefined}
      onKeyDown={onMoveKey}
      onBlur={onLeft}
      aria-label={`Move “${name}”`}
      className="mt-1 min-h-[24px] min-w-[24px] shrink-0 cursor-grab p-1 text-edge opacity-0 group-hover:opacity-100 focus-visible:opacity-100 [@media(hover:none)]:opacity-100"
    >
      <GripVertical aria-hidden size={15} />
    </button>
  );
}
