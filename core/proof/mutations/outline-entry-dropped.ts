import { PdfRef } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { isRefTo } from "./opened/pdf-notes.ts";

/** A chapter is not to be found. */
export const outlineEntryDropped: Mutation = {
  name: "an entry of the outline dropped",
  pdf(file, pick) {
    const entries = file.outline();
    const entry = pick(entries.filter(({ dictionary }) => dictionary.has("Next")));
    if (!entry) return false;
    // What stood after it stands after the one before it, or first.
    const next = entry.dictionary.get("Next")!;
    const before = entries.find(({ dictionary }) => isRefTo(dictionary.get("Next"), entry.ref));
    const parent = entry.dictionary.get("Parent") as PdfRef;
    if (before) file.set(before, "Next", next);
    else file.set({ ref: parent, dictionary: file.objects.dictionary(parent) }, "First", next);
    return true;
  },
};
