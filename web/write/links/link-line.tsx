import { shortDestination, type Destination } from "@vennet/core/destination/destination";
import { recognise, type Recognised } from "@vennet/core/destination/recognise";
import { useId, useRef, useState, type KeyboardEvent } from "react";
import { KindMark } from "./kind-mark";

/**
 * The one field in which a destination is given, at the words that it is for. Enter takes it, Esc and
 * leaving the field leave all as it was. With no words selected it asks for them too.
 */
export function LinkLine({
  top,
  initial,
  needsWords,
  onTake,
  onLeave,
}: {
  top: number;
  initial: string;
  needsWords: boolean;
  onTake: (destination: Destination, words: string) => void;
  onLeave: () => void;
}) {
  const [typed, setTyped] = useState(initial);
  const [words, setWords] = useState("");
  const [asked, setAsked] = useState(false);
  // The line itself, with its two blue rules, shows where the focus is.
  const box = useRef<HTMLFormElement>(null);
  const id = useId();
  const reading = read(typed);
  const wordsMissing = needsWords && words.trim() === "";

  const take = (): void => {
    setAsked(true);
    if (reading.recognised && !wordsMissing) onTake(reading.recognised.destination, words.trim());
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== "Escape" && event.key !== "Enter") return;
    event.preventDefault();
    if (event.key === "Enter") take();
    else onLeave();
  };
  return (
    <form
      ref={box}
      aria-label="Link line"
      onSubmit={(event) => event.preventDefault()}
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!box.current?.contains(event.relatedTarget)) onLeave();
      }}
      className="absolute right-0 left-0 z-20 border-y-2 border-blue bg-paper py-2 font-sans text-[0.95rem] shadow-[0_6px_12px_-8px_var(--ink)]"
      style={{ top }}
    >
      {needsWords && (
        <div className="mb-2 flex items-baseline gap-3">
          <label htmlFor={`${id}-words`} className="w-20 shrink-0 text-right text-sm text-faint">
            Words
          </label>
          <input
            id={`${id}-words`}
            autoFocus
            value={words}
            onChange={(event) => setWords(event.target.value)}
            className="w-full bg-transparent font-serif outline-none"
          />
        </div>
      )}
      <div className="flex items-baseline gap-3">
        <label htmlFor={`${id}-to`} className="w-20 shrink-0 text-right text-sm text-faint">
          Leads to
        </label>
        <input
          id={`${id}-to`}
          autoFocus={!needsWords}
          onFocus={(event) => event.target.select()}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          spellCheck={false}
          autoComplete="off"
          placeholder="https://"
          aria-describedby={`${id}-says`}
          aria-invalid={asked && !reading.recognised ? true : undefined}
          className="w-full bg-transparent font-mono outline-none"
        />
      </div>
      <div id={`${id}-says`} className="mt-1 flex flex-wrap gap-x-4 pr-3 pl-[5.75rem] text-sm" role="status">
        {reading.recognised ? (
          <>
            <span className="flex min-w-0 gap-2">
              <KindMark kind={reading.recognised.destination.kind} />
              <strong className="truncate">{shortDestination(reading.recognised.destination)}</strong>
            </span>
            {reading.recognised.mended.length > 0 && (
              <span>Mended: {reading.recognised.mended.join("; ")}</span>
            )}
            {wordsMissing && asked ? (
              <span className="text-red">The link needs words to stand on.</span>
            ) : (
              <span className="ml-auto text-faint">Enter links, Esc leaves</span>
            )}
          </>
        ) : (
          <span className={asked ? "text-red" : "text-faint"}>{reading.problem}</span>
        )}
      </div>
    </form>
  );
}

function read(typed: string): { recognised: Recognised | null; problem: string } {
  try {
    return { recognised: recognise(typed), problem: "" };
  } catch (error) {
    return { recognised: null, problem: (error as Error).message };
  }
}
