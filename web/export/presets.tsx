import { useMutation } from "@tanstack/react-query";
import type { PageLayout } from "@vennet/core/manuscript/page-layout";
import type { Preset } from "@vennet/core/publish/formats/formats";
import { useState, type FormEvent } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import type { Choices } from "./formats/format-on-screen";
import { choiceWords, formats } from "./formats/formats";

/** The book's own sets of choices, by name: taken up, exported with, kept and taken out. */
export function Presets({
  options,
  isBusy,
  onTakeUp,
  onExport,
}: {
  /** What is chosen now, to be kept under a name. */
  options: Choices;
  isBusy: boolean;
  onTakeUp: (options: Choices) => void;
  onExport: (options: Choices) => void;
}) {
  const book = useBook();
  const stale = useStale();
  const [name, setName] = useState("");
  const save = useMutation({
    mutationFn: (presets: Preset[]) =>
      answerOf(
        api.PATCH("/api/books/{bookId}", { params: { path: { bookId: book.id } }, body: { presets } }),
      ),
    onSuccess: () => stale("settings"),
  });
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    const preset = { name: name.trim(), options: withLayout(options, book.layout) };
    const others = book.presets.filter((one) => one.name !== preset.name);
    save.mutate([...others, preset], { onSuccess: () => setName("") });
  };
  return (
    <section aria-label="Presets" className="mt-6">
      <h2 className="font-serif text-xl">Presets</h2>
      {save.error && <Problem>{save.error.message}</Problem>}
      {book.presets.length > 0 && (
        <ul className="mt-2 border border-hairline bg-paper">
          {book.presets.map((preset) => (
            <li
              key={preset.name}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline px-5 py-2 last:border-b-0"
            >
              <div className="min-w-0 grow">
                <p>{preset.name}</p>
                <p className="text-sm text-faint">
                  {[formats[preset.options.format].name, choiceWords(preset.options)]
                    .filter(Boolean)
                    .join(", ")}
                </p>
              </div>
              <Button disabled={isBusy} onClick={() => onExport(preset.options)}>
                Export<span className="sr-only"> as {preset.name}</span>
              </Button>
              <Button kind="quiet" onClick={() => onTakeUp(preset.options)}>
                Apply<span className="sr-only"> {preset.name}</span>
              </Button>
              <Button
                kind="quiet"
                disabled={save.isPending}
                onClick={() => save.mutate(book.presets.filter((one) => one !== preset))}
              >
                Delete<span className="sr-only"> {preset.name}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form onSubmit={keep} className="mt-2 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          Save what is chosen now as
          <input
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.target.value)}
            className="min-h-8 border border-hairline bg-paper px-2"
          />
        </label>
        <Button type="submit" disabled={name.trim() === "" || save.isPending}>
          Save preset
        </Button>
      </form>
    </section>
  );
}

/** A preset of a format with pages keeps them as they are laid out now, whatever the book does later. */
function withLayout(options: Choices, own: PageLayout): Choices {
  return "layout" in formats[options.format].options
    ? { ...options, layout: options.layout ?? own }
    : options;
}
