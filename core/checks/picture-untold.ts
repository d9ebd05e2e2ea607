import { pictureAttrs } from "../manuscript/attributes.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { linkOn } from "../manuscript/schema.ts";
import type { ChapterRule } from "./finding.ts";

/** A picture that is no link and has no text alternative, so that who cannot see it does not know what it shows. */
export const pictureUntold: ChapterRule = {
  id: "picture-untold",
  title: "A picture has no text alternative",
  severity: "fix",
  source: "WCAG 2.2 SC 1.1.1, failure F65, ACT rule 23a2a8 (from memory)",
  findInChapter: (doc) => {
    const found = new Map<string, { subject: string; message: string }>();
    for (const node of pictureNodes(doc)) {
      if (linkOn(node)) continue;
      const { file, alt, decorative, source } = pictureAttrs(node);
      if (file === null || decorative || alt.trim() !== "") continue;
      found.set(file, {
        subject: file,
        message: `The picture ${source ? `“${source}” ` : ""}says nothing to who cannot see it. Select it and say what it shows, or mark it as decorative.`,
      });
    }
    return [...found.values()];
  },
};
