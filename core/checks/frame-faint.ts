import { paperColour } from "../manuscript/looks.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import { contrastRatio } from "./contrast.ts";
import type { ChapterRule } from "./finding.ts";
import { checkedPage } from "./page-of-file.ts";

/** A frame around a hotspot, or around any link of a finished file, with too little contrast against the paper. */
export const frameFaint: ChapterRule = {
  id: "frame-faint",
  title: "A hotspot’s frame is hardly seen",
  severity: "fix",
  source: "WCAG 2.2 SC 1.4.11: 3 against what is beside it",
  findInChapter: (doc, _links, context) => {
    const framed =
      checkedPage(context)?.links ?? pictureNodes(doc).flatMap((node) => pictureAttrs(node).hotspots);
    return framed.flatMap(({ id, frame }) => {
      if (frame.line === "none") return [];
      const ratio = contrastRatio(frame.colour, paperColour);
      if (ratio >= 3) return [];
      return [
        {
          subject: id,
          message: `The frame has a contrast of ${ratio.toFixed(2)} with white paper; 3 is asked. Choose a darker colour.`,
        },
      ];
    });
  },
};
