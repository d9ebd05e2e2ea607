import type { Mutation } from "./mutation.ts";
import { withoutAttribute } from "./opened/open-pages.ts";

/** Which of several ways back it is nobody hears. */
export const nameOfWayBackDropped: Mutation = {
  name: "the name of a way back removed",
  pages(file, pick) {
    const back = pick(file.links(/role="doc-backlink"[^>]*aria-label=/));
    if (back) file.relink(back, { tag: withoutAttribute(back.tag, "aria-label") });
    return back !== undefined;
  },
};
