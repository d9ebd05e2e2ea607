import type { Mutation } from "./mutation.ts";

/** Nothing takes a press. */
export const rectangleOfNoSize: Mutation = {
  name: "a link’s area of no size",
  pdf(file, pick) {
    const link = pick(file.links());
    if (!link) return false;
    const [left, low] = file.objects.read(link.dictionary.get("Rect")) as number[];
    file.set(link, "Rect", [left!, low!, left!, low!]);
    file.unset({ ...link, dictionary: file.objects.dictionary(link.ref) }, "QuadPoints");
    return true;
  },
};
