import type { Mutation } from "./mutation.ts";
import type { OpenAnnotation } from "./opened/open-pdf.ts";

/** Nobody sees what the link says. */
export const paintedOver: Mutation = {
  name: "a filled shape painted over a link",
  pdf(file, pick) {
    const boxOf = ({ dictionary }: OpenAnnotation): number[] =>
      file.objects.several(dictionary.get("Rect")).map(Number);
    // On what is narrower may stand a blank alone.
    const link = pick(file.links().filter((one) => boxOf(one)[2]! - boxOf(one)[0]! > 8));
    if (!link) return false;
    const [left = 0, low = 0, right = 0, high = 0] = boxOf(link);
    file.paint(link.page, "", `q ${left} ${low} ${right - left} ${high - low} re f Q`);
    return true;
  },
};
