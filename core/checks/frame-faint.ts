import { paperColour } from "../manuscript/looks.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import { contrastRatio } from "./contrast.ts";
import type { ChapterRule } from "./finding.ts";

/** A frame around a hotspot with too little contrast against the paper. */
export const frameFaint: ChapterRule = {
  id: "frame-faint",
  title: "A hotspot’s frame is hardly seen",
  severity: "fix",
  source: "WCAG 2.2 SC 1.4.11: 3 against what is beside it",
  findInChapter: (doc) => {
    const found: { subject: string; message: string }[] = [];
    for (const node of pictureNodes(doc))
      for (const { id, frame } of pictureAttrs(node).hotspots) {
        if (frame.line === "none") continue;
        const ratio = contrastRatio(frame.colour, paperColour);
        if (ratio < 3)
          found.push({
            subject: id,
            message: `The frame has a contrast of ${ratio.toFixed(2)} with white paper; 3 is asked. Choose a darker colour.`,
          });
      }
    return found;
  },
};
