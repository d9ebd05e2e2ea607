import { signpostAttrs } from "../manuscript/attributes.ts";
import { signpostsOf } from "../manuscript/signposts.ts";
import type { ChapterRule } from "./finding.ts";

/** A signpost list that lists nothing, or whose section or chosen anchors are gone. */
export const signpostsEmpty: ChapterRule = {
  id: "signposts-empty",
  title: "A signpost list has nothing to list",
  severity: "fix",
  source: "common practice: a list of jumps follows the text",
  findInChapter: (doc, _links, { index, chapter }) => {
    const found: { subject: string; message: string }[] = [];
    doc.descendants((node) => {
      if (node.type.name !== "signposts") return;
      const list = signpostAttrs(node);
      const gone = list.anchors.filter((id) => !index.places.has(id)).length;
      if (list.scope === "section" && !(list.section && index.places.has(list.section)))
        found.push({
          subject: list.id,
          message: "The section that this list is about is gone. Choose another.",
        });
      else if (signpostsOf(list, index, chapter).length === 0)
        found.push({
          subject: list.id,
          message: "This list has no entry yet. Choose what it lists, or delete it.",
        });
      else if (list.of === "anchors" && gone > 0)
        found.push({
          subject: list.id,
          message: `${gone === 1 ? "One chosen anchor is" : `${gone} chosen anchors are`} gone. Choose again.`,
        });
    });
    return found;
  },
};
