import { X } from "lucide-react";
import type { EditorState } from "prosemirror-state";
import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";
import { modifier } from "../frame/keys";
import { Button } from "../parts/button";

const steps = [
  "Select some words in the text that have no link, with the mouse or with Shift and the arrow keys.",
  `Press ${modifier} K. The link line opens at your words.`,
  "Paste an address, or type a heading or other words of the book. What fits is listed; Enter takes the marked one.",
  `Done: the words are a link, and its card says where it leads. ${modifier} Enter follows it, ${modifier} Z takes it back.`,
] as const;

/** Walks through making a link, step by step as the author goes; it can be left at any of them. */
export function FirstLink({
  state,
  isLineOpen,
  count,
}: {
  state: EditorState;
  isLineOpen: boolean;
  /** How many links the chapter has. */
  count: number;
}) {
  const [search, setSearch] = useSearchParams();
  const isShown = search.get("guide") === "first-link";
  const before = useRef(count);
  const isMade = useRef(false);
  useEffect(() => {
    if (count > before.current) isMade.current = true;
    before.current = count;
  }, [count]);
  if (!isShown) return null;
  const at = isMade.current || count > before.current ? 3 : isLineOpen ? 2 : state.selection.empty ? 0 : 1;
  const leave = (): void => {
    search.delete("guide");
    setSearch(search, { replace: true });
  };
  return (
    <section
      aria-label="Your first link"
      className="flex items-baseline gap-3 border-b border-hairline bg-blue-wash px-4 py-1.5"
    >
      <span className="shrink-0 text-sm text-faint">
        {at + 1} of {steps.length}
      </span>
      <p role="status" className="min-w-0 grow">
        {steps[at]}
      </p>
      <Button kind="quiet" onClick={leave} aria-label="Leave the guide" data-tip="Leave the guide">
        {at === 3 ? "Close" : <X aria-hidden size={15} />}
      </Button>
    </section>
  );
}
