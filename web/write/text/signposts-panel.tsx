import type { BookIndex } from "@vennet/core/manuscript/book-index";
import { signpostAttrs, type SignpostList } from "@vennet/core/manuscript/attributes";
import { NodeSelection, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";

const kinds: [SignpostList["of"], string][] = [
  ["contents", "Contents"],
  ["questions", "Questions"],
  ["figures", "Figures"],
  ["tables", "Tables"],
  ["anchors", "Anchors that I choose"],
];

const select = "min-h-8 max-w-60 border border-hairline bg-paper px-1";

/** The panel stands under its list, which may reach below the window. */
function seen(panel: HTMLElement | null): void {
  panel?.scrollIntoView({ block: "nearest" });
}

/** What the selected signpost list lists, how deep, and whether readers find back to it. */
export function SignpostsPanel({
  view,
  state,
  index,
  top,
}: {
  view: EditorView;
  state: EditorState;
  index: BookIndex;
  top: (position: number) => number;
}) {
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== "signposts") return null;
  const list = signpostAttrs(selection.node);
  const set = (to: Partial<SignpostList>): void => {
    const change = view.state.tr.setNodeMarkup(selection.from, null, { ...list, ...to });
    view.dispatch(change.setSelection(NodeSelection.create(change.doc, selection.from)));
  };
  const headings = index.inOrder.filter(({ level, words }) => level !== null && words !== "");
  const anchors = index.inOrder.filter(({ kind }) => kind === "anchor");
  const canReturn = list.of === "contents" || list.of === "questions";
  return (
    <div
      ref={seen}
      role="group"
      aria-label="Signpost list"
      className="absolute inset-x-0 z-20 grid gap-2 border-y-2 border-blue bg-paper py-2 pr-3 font-sans text-[0.95rem]"
      style={{ top: top(selection.to) }}
    >
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <label className="grid text-sm text-faint">
          Lists
          <select
            value={list.of}
            onChange={(event) => {
              const of = event.target.value as SignpostList["of"];
              const words = index.words[of === "anchors" ? "places" : of];
              const isOwn = !Object.values(index.words).includes(list.heading) && list.heading !== "";
              set({ of, depth: 1, ...(isOwn ? {} : { heading: words }) });
            }}
            className={`${select} text-ink`}
          >
            {kinds.map(([of, words]) => (
              <option key={of} value={of}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {list.of !== "anchors" && (
          <label className="grid text-sm text-faint">
            Of
            <select
              value={list.scope === "section" ? (list.section ?? "section") : list.scope}
              onChange={(event) => {
                const { value } = event.target;
                if (value === "book" || value === "chapter") set({ scope: value, section: null });
                else set({ scope: "section", section: value });
              }}
              className={`${select} text-ink`}
            >
              <option value="book">the whole book</option>
              <option value="chapter">this chapter</option>
              {list.scope === "section" && !index.places.has(list.section ?? "") && (
                <option value={list.section ?? "section"}>a section that is gone</option>
              )}
              {headings.map(({ id, words, level }) => (
                <option key={id} value={id}>
                  {"\u2003".repeat(level ?? 0) + words}
                </option>
              ))}
            </select>
          </label>
        )}
        {list.of === "contents" && (
          <label className="grid text-sm text-faint">
            Levels
            <select
              value={list.depth}
              onChange={(event) => set({ depth: Number(event.target.value) })}
              className={`${select} text-ink`}
            >
              {[1, 2, 3, 4, 5].map((depth) => (
                <option key={depth}>{depth}</option>
              ))}
            </select>
          </label>
        )}
        {list.of === "questions" && (
          <label className="grid text-sm text-faint">
            The questions are
            <select
              value={list.depth}
              onChange={(event) => set({ depth: Number(event.target.value) })}
              className={`${select} text-ink`}
            >
              {[1, 2, 3, 4].map((level) => (
                <option key={level} value={level}>
                  headings {level}
                </option>
              ))}
            </select>
          </label>
        )}
        <Field
          className="min-w-40 grow"
          label="Words above it"
          value={list.heading}
          onChange={(event) => set({ heading: event.target.value })}
        />
      </div>
      {list.of === "anchors" && (
        <fieldset className="grid max-h-40 gap-x-5 overflow-y-auto text-sm sm:grid-cols-2">
          <legend className="text-faint">Readers see the words that stand at an anchor, not its name.</legend>
          {anchors.length === 0 && <p>The book has no anchor yet. Put one at the cursor with Alt A.</p>}
          {anchors.map(({ id, text, words }) => (
            <label key={id} className="flex items-baseline gap-2">
              <input
                type="checkbox"
                className="accent-blue"
                checked={list.anchors.includes(id)}
                onChange={(event) =>
                  set({
                    anchors: event.target.checked
                      ? [...list.anchors, id]
                      : list.anchors.filter((other) => other !== id),
                  })
                }
              />
              <span className="min-w-0 truncate">
                {text} <span className="font-serif text-faint">{words}</span>
              </span>
            </label>
          ))}
        </fieldset>
      )}
      <div className="flex flex-wrap items-end gap-x-5 gap-y-1">
        {canReturn && (
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="size-4 accent-blue"
              checked={list.returnWords !== null}
              onChange={(event) =>
                set({ returnWords: event.target.checked ? `Back to: ${list.heading || "the list"}` : null })
              }
            />
            A return link after each section
          </label>
        )}
        {canReturn && list.returnWords !== null && (
          <Field
            className="min-w-52 grow"
            label="Words of the return links"
            value={list.returnWords}
            onChange={(event) => set({ returnWords: event.target.value })}
          />
        )}
        <Button
          kind="quiet"
          className="ml-auto !text-sm"
          onClick={() => {
            view.dispatch(view.state.tr.deleteSelection());
            view.focus();
          }}
        >
          Delete the list
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={() => view.focus()}>
          Back to the text
        </Button>
      </div>
    </div>
  );
}
