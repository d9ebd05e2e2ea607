import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import type { Hotspot } from "@vennet/core/manuscript/hotspot";
import { closeHistory } from "prosemirror-history";
import { NodeSelection } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { useState } from "react";
import { later } from "../../parts/later";
import type { NewTargets } from "../links/use-new-targets";

// Drawing needs a library that nothing else on this page does.
const HotspotBench = later("Opening the picture", async () => (await import("./hotspot-bench")).HotspotBench);

/** The areas of the picture that stands at a position of the text, drawn in place of the page. */
export function PictureAreas({
  bookId,
  view,
  position,
  targets,
  onDone,
}: {
  bookId: string;
  view: EditorView;
  position: number;
  targets: NewTargets;
  onDone: () => void;
}) {
  const [opened] = useState(() => view.state.doc.nodeAt(position));
  if (!opened) return null;
  const change = (hotspots: Hotspot[]): void => {
    const picture = view.state.doc.nodeAt(position);
    if (picture?.type.name !== "picture") return;
    // Drawing what leads nowhere yet changes nothing of the text.
    if (JSON.stringify(pictureAttrs(picture).hotspots) === JSON.stringify(hotspots)) return;
    const next = closeHistory(view.state.tr).setNodeAttribute(position, "hotspots", hotspots);
    view.dispatch(next.setSelection(NodeSelection.create(next.doc, position)));
  };
  return (
    <HotspotBench
      bookId={bookId}
      picture={pictureAttrs(opened)}
      onMakePage={targets.makePage}
      onBringFile={targets.bringFile}
      onShelf={targets.leadToShelf}
      onChange={change}
      onDone={onDone}
    />
  );
}
