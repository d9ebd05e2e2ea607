import { textString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** It says another chapter than it opens. */
export const outlineEntryRenamed: Mutation = {
  name: "an entry of the outline with other words",
  pdf(file, pick) {
    const entry = pick(file.outline());
    if (entry) file.set(entry, "Title", textString("Somewhere else"));
    return entry !== undefined;
  },
};
