import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { seededBookOf } from "./seeded-book.mjs";
import { Typesetter } from "../server/dist/workers/typesetter.js";

// Sets the book that it is sent, and again after one paragraph was changed, and says how long that took.
process.on("message", (documents) => {
  const first = seededBookOf(documents.map(readChapter));
  const typesetter = new Typesetter();
  const { pdf: bytes } = typesetter.write(first, true);
  process.send({ step: "cold", bytes });
  // The edit is made in the document that is open, as an author makes it: everything else stays as it is.
  const edited = { ...first, chapters: [...first.chapters] };
  const middle = Math.floor(edited.chapters.length / 2);
  const { doc } = edited.chapters[middle];
  // As most do, it brings no letter that a font of the book lacks.
  const change = doc.type.schema.text("the stone that was white is not there. ");
  const paragraph = doc.child(2);
  edited.chapters[middle] = {
    ...edited.chapters[middle],
    doc: doc.copy(doc.content.replaceChild(2, paragraph.copy(paragraph.content.addToStart(change)))),
  };
  const started = performance.now();
  const again = typesetter.write(edited, true);
  const ms = performance.now() - started;
  process.send({
    step: "edited",
    ms,
    bytes: again.pdf,
    documents: edited.chapters.map(({ doc }) => writeChapter(doc)),
  });
});
