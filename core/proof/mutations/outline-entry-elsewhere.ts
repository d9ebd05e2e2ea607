import type { Mutation } from "./mutation.ts";

/** It opens another page. */
export const outlineEntryElsewhere: Mutation = {
  name: "an entry of the outline led elsewhere",
  pdf(file, pick) {
    const entries = file.outline();
    const entry = pick(entries);
    const to = (one: typeof entry): string => JSON.stringify(file.objects.read(one?.dictionary.get("Dest")));
    const other = pick(entries.filter((one) => to(one) !== to(entry)));
    if (!entry || !other) return false;
    file.set(entry, "Dest", other.dictionary.get("Dest")!);
    return true;
  },
};
