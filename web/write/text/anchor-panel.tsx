import { NodeSelection, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { isJustMade, leaveAnchor } from "./made-anchor";
import { plural } from "../../parts/wording";

/** The selected anchor's name, which no reader sees, and what leads there. */
export function AnchorPanel({
  view,
  state,
  top,
  usesOf,
}: {
  view: EditorView;
  state: EditorState;
  top: (position: number) => number;
  /** How many links of the book lead to a place. */
  usesOf: (id: string) => number;
}) {
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== "anchor") return null;
  const { id, name } = selection.node.attrs as { id: string; name: string };
  const uses = usesOf(id);
  return (
    <div
      role="group"
      aria-label="Anchor"
      className="absolute inset-x-0 z-20 flex flex-wrap items-end gap-x-5 gap-y-1 border-y-2 border-blue bg-paper py-2 font-sans text-[0.95rem]"
      style={{ top: top(selection.from) }}
    >
      <Field
        key={id}
        // One that was just put in is waiting for its name.
        autoFocus={name === "" || isJustMade(state, id)}
        onFocus={(event) => event.target.select()}
        className="min-w-60 grow"
        label="Name of the anchor, any words; readers never see it"
        value={name}
        onChange={(event) => {
          const change = view.state.tr.setNodeAttribute(selection.from, "name", event.target.value);
          view.dispatch(change.setSelection(NodeSelection.create(change.doc, selection.from)));
        }}
        onKeyDown={(event) => {
          if (event.key !== "Enter" && event.key !== "Escape") return;
          event.preventDefault();
          view.dispatch(leaveAnchor(view.state));
          view.focus();
        }}
      />
      <span className="text-sm text-faint">
        {uses === 0 ? "No link leads here yet" : plural(uses, "link leads here", "links lead here")}
      </span>
      {uses === 0 && (
        <Button
          kind="quiet"
          onClick={() => {
            view.dispatch(view.state.tr.deleteSelection());
            view.focus();
          }}
        >
          Delete
        </Button>
      )}
    </div>
  );
}
