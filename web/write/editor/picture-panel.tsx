import { pictureAttrs } from "@vennet/core/manuscript/schema";
import { NodeSelection, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { Field } from "../../parts/field";

/** The selected picture's text alternative, asked for at its foot. */
export function PicturePanel({
  view,
  state,
  top,
}: {
  view: EditorView;
  state: EditorState;
  top: (position: number) => number;
}) {
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== "picture") return null;
  const { alt, decorative } = pictureAttrs(selection.node);
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
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-4 accent-blue"
          checked={decorative}
          onChange={(event) => set("decorative", event.target.checked)}
        />
        It is decoration and says nothing
      </label>
    </div>
  );
}
