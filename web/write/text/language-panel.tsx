import { languageTag } from "@vennet/core/manuscript/language";
import type { EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { useState } from "react";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { markLanguage, wordsInLanguage } from "./language-commands";

/** Says in which language the selected words are, for screen readers, hyphens and fonts. */
export function LanguagePanel({
  view,
  state,
  top,
  book,
  onClose,
}: {
  view: EditorView;
  state: EditorState;
  top: (position: number) => number;
  /** The book's language. */
  book: string;
  onClose: () => void;
}) {
  const words = wordsInLanguage(state);
  const [given, setGiven] = useState(words?.tag ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  if (!words) return null;
  const close = (): void => {
    onClose();
    view.focus();
  };
  const keep = (tag: string | null): void => {
    markLanguage(tag)(view.state, view.dispatch);
    close();
  };
  const tag = languageTag(given);
  return (
    <form
      aria-label="In another language"
      className="absolute inset-x-0 z-20 flex flex-wrap items-end gap-x-4 gap-y-1 border-y-2 border-blue bg-paper py-2 font-sans text-[0.95rem]"
      style={{ top: top(words.to) }}
      onSubmit={(event) => {
        event.preventDefault();
        if (tag === null) setProblem("Write it as “fr”, “la” or “zh-Hant-TW”.");
        else keep(tag === book ? null : tag);
      }}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        event.preventDefault();
        close();
      }}
    >
      <Field
        autoFocus
        className="min-w-60 grow"
        label={`These words are in (the book is in ${nameOf(book)})`}
        value={given}
        problem={problem}
        hint={tag === null ? "A language’s tag: fr, la, zh-Hant-TW" : nameOf(tag)}
        onChange={(event) => {
          setGiven(event.target.value);
          setProblem(null);
        }}
      />
      <Button kind="main" type="submit">
        Apply
      </Button>
      {words.tag !== null && (
        <Button kind="quiet" onClick={() => keep(null)}>
          As the book
        </Button>
      )}
      <Button kind="quiet" onClick={close}>
        Cancel
      </Button>
    </form>
  );
}

/** What a language is called; its tag where it has no name. */
function nameOf(tag: string): string {
  return new Intl.DisplayNames("en", { type: "language" }).of(tag) ?? tag;
}
