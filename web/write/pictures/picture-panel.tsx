import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import { NodeSelection, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { useRef, useState } from "react";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { Problem } from "../../parts/notice";
import { plural } from "../../parts/wording";

/** What can be said and done about the selected picture, at its foot. */
export function PicturePanel({
  view,
  state,
  top,
  onLink,
  onHotspots,
  onReplace,
}: {
  view: EditorView;
  state: EditorState;
  top: (position: number) => number;
  onLink: () => void;
  onHotspots: (position: number) => void;
  /** Stores another picture and gives its id. */
  onReplace: (file: File) => Promise<string>;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== "picture") return null;
  const { file, alt, decorative, width, hotspots } = pictureAttrs(selection.node);
  const set = (name: string, value: unknown): void => {
    const { from } = selection;
    const change = view.state.tr.setNodeAttribute(from, name, value);
    view.dispatch(change.setSelection(NodeSelection.create(change.doc, from)));
  };
  return (
    <div
      role="group"
      aria-label="Picture"
      className="absolute inset-x-0 z-20 grid gap-2 border-y-2 border-blue bg-paper py-2 font-sans text-[0.95rem]"
      style={{ top: top(selection.from) }}
    >
      <Field
        label="Text alternative: what the picture shows"
        value={alt}
        disabled={decorative}
        onChange={(event) => set("alt", event.target.value)}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 text-sm">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-blue"
            checked={decorative}
            onChange={(event) => set("decorative", event.target.checked)}
          />
          It is decoration and says nothing
        </label>
        <label className="flex items-center gap-2">
          Width
          <input
            type="range"
            min={10}
            max={100}
            step={5}
            value={width ?? 100}
            aria-valuetext={width === null ? "its own" : `${width} percent of the text`}
            onChange={(event) => set("width", Number(event.target.value))}
            className="accent-blue"
          />
          <span className="w-20 tabular-nums">{width === null ? "its own" : `${width} %`}</span>
        </label>
      </div>
      <div className="flex flex-wrap gap-x-4">
        <Button kind="quiet" onClick={onLink}>
          Link the picture
        </Button>
        {file !== null && (
          <Button kind="quiet" onClick={() => onHotspots(selection.from)}>
            {hotspots.length > 0
              ? `Hotspots: ${plural(hotspots.length, "area")}`
              : "Hotspots: link areas of it"}
          </Button>
        )}
        <Button kind="quiet" onClick={() => picker.current?.click()}>
          Replace the picture
        </Button>
      </div>
      {problem && <Problem>{problem}</Problem>}
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="Picture to put in its place"
        accept="image/png,image/jpeg,image/gif,image/svg+xml,image/webp,image/avif"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (!chosen) return;
          setProblem(null);
          onReplace(chosen).then(
            (id) => set("file", id),
            (error: unknown) => setProblem((error as Error).message),
          );
        }}
      />
    </div>
  );
}
