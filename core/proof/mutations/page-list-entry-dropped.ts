import type { Mutation } from "./mutation.ts";

/** A page is not to be found. */
export const pageListEntryDropped: Mutation = {
  name: "an entry of the page list dropped",
  epub(file, pick) {
    const entry = pick(file.find([file.navigation], /<li><a href="[^"]*#page-[^"]*">[^<]*<\/a><\/li>/));
    if (entry) file.replace(entry, "");
    return entry !== undefined;
  },
};
