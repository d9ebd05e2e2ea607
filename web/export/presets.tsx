import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ExportOptions, Preset } from "@vennet/core/publish/export-options";
import { useState, type FormEvent } from "react";
import { answerOf, api } from "../api/client";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { formats, optionWords } from "./export-formats";

/** The book's own sets of choices, by name: taken up, exported with, kept and taken out. */
export function Presets({
  options,
  isBusy,
  onTakeUp,
  onExport,
}: {
  /** What is chosen now, to be kept under a name. */
  options: ExportOptions;
  isBusy: boolean;
  onTakeUp: (options: ExportOptions) => void;
  onExport: (options: ExportOptions) => void;
}) {
  const book = useBook();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const save = useMutation({
    mutationFn: (presets: Preset[]) =>
      answerOf(
        api.PATCH("/api/books/{bookId}", { params: { path: { bookId: book.id } }, body: { presets } }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["book", book.id] }),
  });
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    const preset = { name: name.trim(), options: { ...options, layout: layoutOf(options, book.layout) } };
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
                  {[formats[preset.options.format].name, optionWords(preset.options)]
                    .filter(Boolean)
                    .join(", ")}
                </p>
              </div>
              <Button disabled={isBusy} onClick={() => onExport(preset.options)}>
                Export<span className="sr-only"> as {preset.name}</span>
              </Button>
              <Button kind="quiet" onClick={() => onTakeUp(preset.options)}>
                Take up<span className="sr-only"> {preset.name}</span>
              </Button>
              <Button
                kind="quiet"
                disabled={save.isPending}
                onClick={() => save.mutate(book.presets.filter((one) => one !== preset))}
              >
                Take out<span className="sr-only"> {preset.name}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form onSubmit={keep} className="mt-2 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          Keep what is chosen now as
          <input
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.target.value)}
            className="min-h-8 border border-hairline bg-paper px-2"
          />
        </label>
        <Button type="submit" disabled={name.trim() === "" || save.isPending}>
          Keep
        </Button>
      </form>
    </section>
  );
}

/** A preset of a PDF keeps the pages as they are laid out now, whatever the book does later. */
function layoutOf({ format, layout }: ExportOptions, own: ExportOptions["layout"]): ExportOptions["layout"] {
  return format === "pdf" ? (layout ?? own) : null;
}
