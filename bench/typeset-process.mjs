import { readChapter } from "@vennet/core/manuscript/chapter";
import { Typesetter } from "../server/dist/workshop/typesetter.js";

// Sets the book that it is sent, and again after one paragraph was changed, and says how long that took.
process.once("message", (documents) => {
  const first = {
    id: "b7c0ffee-0000-4000-8000-000000000001",
    title: "All causeways",
    author: "Orla Tindrum",
    language: "en",
    modified: "2026-01-01T00:00:00Z",
    chapters: documents.map((document, i) => ({ id: String(i), doc: readChapter(document) })),
    pictures: [],
  };
  const typesetter = new Typesetter();
  const bytes = typesetter.write(first, true);
  process.send({ step: "cold", bytes });
  // The edit is made in the document that is open, as an author makes it: everything else stays as it is.
  const edited = { ...first, chapters: [...first.chapters] };
  const { doc } = edited.chapters[14];
  const change = doc.type.schema.text("A sentence that was not there before. ");
  const paragraph = doc.child(2);
  edited.chapters[14] = {
    id: "14",
    doc: doc.copy(doc.content.replaceChild(2, paragraph.copy(paragraph.content.addToStart(change)))),
  };
  const started = performance.now();
  typesetter.write(edited, true);
  process.send({ step: "edited", ms: performance.now() - started });
});
