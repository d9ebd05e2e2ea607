import { useMutation } from "@tanstack/react-query";
import {
  trimSizes,
  defaultLayout,
  type PageLayout,
  type TrimName,
} from "@vennet/core/manuscript/page-layout";
import { useId, useState, type ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { layoutWords, sizes } from "./layout-words";

const margins = [
  ["inner", "at the binding"],
  ["outer", "outside"],
  ["top", "above"],
  ["bottom", "below"],
] as const;
const box = "min-h-8 border border-hairline bg-paper px-1";

/** How the pages of the PDF are laid out: kept with the book, for this export and all that follow. */
export function PagesForm() {
  const book = useBook();
  const stale = useStale();
  const [layout, setLayout] = useState<PageLayout>(book.layout);
  const set = (to: Partial<PageLayout>): void => setLayout({ ...layout, ...to });
  const save = useMutation({
    mutationFn: () =>
      answerOf(api.PATCH("/api/books/{bookId}", { params: { path: { bookId: book.id } }, body: { layout } })),
    onSuccess: () => stale("settings"),
  });
  const isChanged = JSON.stringify(layout) !== JSON.stringify(book.layout);
  const length = (key: "width" | "height" | (typeof margins)[number][0]) => (id: string) => (
    <input
      id={id}
      type="number"
      step="0.5"
      value={layout[key]}
      onChange={(event) => set({ [key]: event.target.valueAsNumber })}
      className={`${box} w-20`}
    />
  );
  return (
    <details className="mt-4 border border-hairline bg-paper">
      <summary className="px-5 py-2.5">
        Pages of the PDF: <span className="text-faint">{layoutWords(book.layout)}</span>
      </summary>
      <div className="grid gap-x-8 gap-y-3 border-t border-hairline px-5 py-4 md:grid-cols-3">
        <div className="grid content-start gap-3">
          <Labelled label="Page size">
            {(id) => (
              <select
                id={id}
                value={layout.trim}
                className={box}
                onChange={({ target: { value } }) => {
                  const trim = value as TrimName;
                  set({ trim, ...(trim === "own" ? {} : trimSizes[trim]) });
                }}
              >
                {sizes.map(([name, words]) => (
                  <option key={name} value={name}>
                    {words}
                  </option>
                ))}
              </select>
            )}
          </Labelled>
          {layout.trim === "own" && (
            <>
              <Labelled label="Width, mm">{length("width")}</Labelled>
              <Labelled label="Height, mm">{length("height")}</Labelled>
            </>
          )}
        </div>
        <fieldset className="grid content-start gap-3">
          <legend className="sr-only">Margins</legend>
          {margins.map(([key, words]) => (
            <Labelled key={key} label={`Margin ${words}, mm`}>
              {length(key)}
            </Labelled>
          ))}
        </fieldset>
        <div className="grid content-start gap-3">
          <Labelled label="Font size, pt">
            {(id) => (
              <input
                id={id}
                type="number"
                step="0.5"
                value={layout.fontSize}
                onChange={(event) => set({ fontSize: event.target.valueAsNumber })}
                className={`${box} w-20`}
              />
            )}
          </Labelled>
          <Labelled label="Page numbers">
            {(id) => (
              <select
                id={id}
                value={layout.pageNumbers}
                className={box}
                onChange={(event) => set({ pageNumbers: event.target.value as PageLayout["pageNumbers"] })}
              >
                <option value="centre">in the centre</option>
                <option value="outside">outside</option>
                <option value="none">none</option>
              </select>
            )}
          </Labelled>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={layout.runningHeads}
              onChange={(event) => set({ runningHeads: event.target.checked })}
              className="size-4 accent-blue"
            />
            Running heads
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={layout.hyphenate}
              onChange={(event) => set({ hyphenate: event.target.checked })}
              className="size-4 accent-blue"
            />
            Hyphens, by the book’s language
          </label>
        </div>
      </div>
      {save.error && <Problem>{save.error.message}</Problem>}
      <div className="flex flex-wrap items-center gap-4 border-t border-hairline px-5 py-3">
        <Button disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          {save.isPending ? "Saving …" : "Save"}
        </Button>
        <Button kind="quiet" disabled={!isChanged} onClick={() => setLayout(book.layout)}>
          Cancel
        </Button>
        <Button kind="quiet" onClick={() => setLayout(defaultLayout)}>
          Default
        </Button>
        {save.isSuccess && !isChanged && <span role="status">Saved: the next PDF is laid out so.</span>}
      </div>
    </details>
  );
}

function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div className="flex items-center justify-between gap-3">
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  );
}
