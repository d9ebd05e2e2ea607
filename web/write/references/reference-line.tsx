import { suggest, type KnownDestination } from "@vennet/core/destination/suggest";
import type { BookIndex } from "@vennet/core/manuscript/book-index";
import type { ReferenceForm } from "@vennet/core/manuscript/attributes";
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { Button } from "../../parts/button";
import { knownPlace } from "../../destinations/known-place";
import { forms, sayingOf } from "./reference-forms";

/** What the reference line gives: a cross-reference, or the number of a note of this chapter, raised. */
export type TakenReference =
  | { kind: "reference"; target: string; form: ReferenceForm; fallback: "text" | "number" }
  | { kind: "note"; note: string };

const offered = 8;

/**
 * The line in which a cross-reference is made: a place by any part of its name, and what is said of it, each
 * form with the words that it would have. Enter puts it in, Esc and leaving the line leave all as it was.
 */
export function ReferenceLine({
  around,
  position,
  notesHere,
  onTake,
  onLeave,
}: {
  /** The book, as far as it has come: a key that opens the line may be faster. */
  around: { index: BookIndex; chapter: number; pages: ReadonlyMap<string, string> } | null;
  /** Where in the chapter it will stand. */
  position: number;
  /** The notes of this chapter, to which its text can refer by their numbers. */
  notesHere: ReadonlySet<string>;
  onTake: (reference: TakenReference) => void;
  onLeave: () => void;
}) {
  const id = useId();
  const box = useRef<HTMLFormElement>(null);
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const [form, setForm] = useState<ReferenceForm | "note">("text");
  const [fallback, setFallback] = useState<"text" | "number">("text");
  useEffect(() => {
    box.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const known = useMemo(
    () => around?.index.inOrder.map((place) => knownPlace(place, around.index, around.chapter)) ?? [],
    [around],
  );
  const choices: KnownDestination[] = useMemo(
    () =>
      typed.trim() === ""
        ? known.filter((_, i) => around!.index.inOrder[i]!.chapter === around!.chapter).slice(0, offered)
        : suggest(typed, known, offered),
    [typed, known, around],
  );
  const picked = choices[Math.min(at, choices.length - 1)] ?? null;
  const target = picked?.destination.kind === "place" ? picked.destination.target : null;
  const isNote = target !== null && notesHere.has(target);
  const says = (one: ReferenceForm) =>
    target && around ? sayingOf({ target, form: one, fallback }, around, position) : null;
  const take = (): void => {
    if (target === null) return;
    if (form === "note" && isNote) onTake({ kind: "note", note: target });
    else onTake({ kind: "reference", target, form: form === "note" ? "number" : form, fallback });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const inLine = (event.target as HTMLElement).id === `${id}-to`;
    if (event.key === "Escape") onLeave();
    else if (event.key === "Enter" && (event.target as HTMLElement).tagName !== "BUTTON") take();
    else if (inLine && event.key === "ArrowDown" && choices.length > 0) setAt((at + 1) % choices.length);
    else if (inLine && event.key === "ArrowUp" && choices.length > 0)
      setAt((at + choices.length - 1) % choices.length);
    else return;
    event.preventDefault();
  };
  const option = (value: ReferenceForm | "note", words: string, shown: string, isGap: boolean) => (
    <label key={value} className="flex min-h-[24px] min-w-0 items-center gap-2">
      <input
        type="radio"
        name={`${id}-form`}
        checked={form === value}
        onChange={() => setForm(value)}
        className="accent-blue"
      />
      <span className="w-32 shrink-0">{words}</span>
      <span className={`min-w-0 truncate ${isGap ? "text-red" : "font-serif"}`}>{shown}</span>
    </label>
  );
  return (
    <form
      ref={box}
      aria-label="Cross-reference"
      onSubmit={(event) => event.preventDefault()}
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!box.current?.contains(event.relatedTarget) && document.hasFocus()) onLeave();
      }}
      className="border-y-2 border-blue bg-paper py-2 pr-3 font-sans text-[0.95rem] shadow-[0_6px_12px_-8px_var(--ink)]"
    >
      <div className="flex items-baseline gap-3">
        <label htmlFor={`${id}-to`} className="w-20 shrink-0 text-right text-sm text-faint">
          Follows
        </label>
        <input
          id={`${id}-to`}
          role="combobox"
          aria-expanded={choices.length > 0}
          aria-controls={`${id}-choices`}
          aria-activedescendant={picked ? `${id}-choice-${choices.indexOf(picked)}` : undefined}
          aria-autocomplete="list"
          autoFocus
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setAt(0);
          }}
          spellCheck={false}
          autoComplete="off"
          placeholder="Any part of a heading’s, caption’s, anchor’s or note’s words"
          className="w-full min-w-0 border-b border-hairline bg-transparent outline-none placeholder:text-faint focus:border-blue"
        />
      </div>
      <ul
        id={`${id}-choices`}
        role="listbox"
        aria-label="What it can follow"
        className="mt-1 max-h-52 overflow-y-auto pl-[5.75rem] text-sm"
      >
        {choices.map((choice, i) => (
          <li
            key={JSON.stringify(choice.destination)}
            id={`${id}-choice-${i}`}
            role="option"
            aria-selected={choice === picked}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => setAt(i)}
            className={`flex cursor-pointer gap-2 px-1.5 py-0.5 ${choice === picked ? "bg-blue-wash" : ""}`}
          >
            <strong className="max-w-[70%] shrink-0 truncate">{choice.name}</strong>
            <span className="truncate text-faint">{choice.detail}</span>
          </li>
        ))}
      </ul>
      {choices.length === 0 && (
        <p role="status" className="pl-[5.75rem] text-sm text-faint">
          {around ? "No place of the book is called so." : "The places of the book are on their way."}
        </p>
      )}
      <fieldset className="mt-2 grid min-w-0 gap-0.5 pl-[5.75rem] text-sm">
        <legend className="sr-only">What it says</legend>
        {forms.map(([value, words]) => {
          const saying = says(value);
          return option(value, words, saying?.words ?? "", saying?.isGap ?? false);
        })}
        {isNote && option("note", "As a note’s mark", around?.index.places.get(target)?.number ?? "", false)}
      </fieldset>
      {(form === "page" || form === "page-and-text") && (
        <label className="mt-1 flex items-baseline gap-2 pl-[5.75rem] text-sm">
          <span className="w-32 shrink-0">Without pages</span>
          <select
            value={fallback}
            onChange={(event) => setFallback(event.target.value as typeof fallback)}
            className="border border-hairline bg-paper"
          >
            <option value="text">its words</option>
            <option value="number">its number</option>
          </select>
        </label>
      )}
      <div className="mt-1.5 flex gap-3 pl-[5.75rem]">
        <Button kind="main" className="!text-sm" disabled={target === null} onClick={take}>
          Put it in
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={onLeave}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
