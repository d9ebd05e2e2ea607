import type { Mutation } from "./mutation.ts";

/** Who has read the note does not find back. */
export const wayBackDropped: Mutation = {
  name: "a way back from a note dropped",
  pages(file, pick) {
    const back = pick(file.links(/role="doc-backlink"/));
    if (back) file.replace(back, back.inner);
    return back !== undefined;
  },
};
