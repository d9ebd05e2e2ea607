import type { Mutation } from "./mutation.ts";

/** A place is not to be found. */
export const signpostDropped: Mutation = {
  name: "an entry of a signpost list dropped",
  pages(file, pick) {
    const entry = pick(file.find(file.pages, /<li><a class="place" href="[^"]*">[^<]*<\/a><\/li>/));
    if (entry) file.replace(entry, "");
    return entry !== undefined;
  },
};
