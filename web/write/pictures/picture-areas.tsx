import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import { closeHistory } from "prosemirror-history";
import { NodeSelection } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { lazy, Suspense } from "react";
import { Waiting } from "../../parts/notice";
import type { NewTargets } from "../links/use-new-targets";

// Drawing needs a library that nothing else on this page does.
const HotspotBench = lazy(() =>
  import("./hotspot-bench").then((module) => ({ default: module.HotspotBench })),
);

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
  const picture = view.state.doc.nodeAt(position);
  if (!picture) return null;
  return (
    <Suspense fallback={<Waiting what="Opening the picture" />}>
      <HotspotBench
        bookId={bookId}
        picture={pictureAttrs(picture)}
        onMakePage={targets.makePage}
        onBringFile={targets.bringFile}
        onDone={(hotspots) => {
          if (hotspots) {
            const change = closeHistory(view.state.tr).setNodeAttribute(position, "hotspots", hotspots);
            view.dispatch(change.setSelection(NodeSelection.create(change.doc, position)));
          }
          onDone();
        }}
      />
    </Suspense>
  );
}
