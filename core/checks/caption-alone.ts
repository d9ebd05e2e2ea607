import { captionedBlocks } from "../manuscript/captions.ts";
import type { ChapterRule } from "./finding.ts";

/** A caption with no picture or table beside it. */
export const captionAlone: ChapterRule = {
  id: "caption-alone",
  title: "A caption stands beside nothing",
  severity: "fix",
  source: "HTML: a figcaption is the caption of its figure's content",
  findInChapter: (doc) => {
    const found: { subject: string; message: string }[] = [];
    const look = (parent: typeof doc): void => {
      for (const { node } of captionedBlocks(parent)) {
        if (node.type.name === "caption")
          found.push({
            subject: node.attrs["id"] as string,
            message:
              node.attrs["of"] === "table"
                ? "This caption stands beside no table. Move it there, or delete it."
                : "This caption stands under no picture. Move it there, or delete it.",
          });
        else if (!node.isTextblock && !node.isLeaf) look(node);
      }
    };
    look(doc);
    return found;
  },
};
