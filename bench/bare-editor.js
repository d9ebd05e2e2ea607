import { readChapter } from "@vennet/core/manuscript/chapter";
import { EditorState } from "prosemirror-state";
import { EditorView } from "prosemirror-view";

// What the editor of a chapter is compared with: its document and its schema in ProseMirror's own view, and no more.
globalThis.openBare = (json) => {
  const place = globalThis.document.body.appendChild(globalThis.document.createElement("main"));
  place.style.width = "36rem";
  new EditorView(place, {
    state: EditorState.create({ doc: readChapter(json) }),
    attributes: { class: "manuscript", spellcheck: "true" },
  });
};
