import type { Mutation } from "./mutation.ts";

/** It opens another place. */
export const signpostElsewhere: Mutation = {
  name: "an entry of a signpost list led elsewhere",
  pages(file, pick) {
    const entries = file.find(file.pages, /<li><a class="place" href="([^"]*)">/);
    const entry = pick(entries);
    const other = pick(
      entries.filter(({ match, path }) => match[1] !== entry?.match[1] && path === entry?.path),
    );
    if (!entry || !other) return false;
    file.replace(entry, other.match[0]);
    return true;
  },
};
