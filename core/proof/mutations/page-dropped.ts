import type { Mutation } from "./mutation.ts";

/** What stood on it is gone, and what led to it leads nowhere. */
export const pageDropped: Mutation = {
  name: "a page dropped, or listed twice",
  pdf(file, pick) {
    const all = file.pages();
    const page = pick(all.filter((one) => file.annotationsOf(one).length > 0));
    const parent = page && file.parentOf(page);
    if (!parent) return false;
    const kids = file.kidsOf(parent);
    const at = kids.findIndex((ref) => ref.number === page.ref.number);
    const isTwice = pick([true, false])!;
    file.setKids(parent, isTwice ? kids.toSpliced(at, 0, page.ref) : kids.toSpliced(at, 1));
    return true;
  },
};
