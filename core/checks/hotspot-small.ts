import { hotspotBox } from "../manuscript/hotspot.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import type { ChapterRule } from "./finding.ts";

/** WCAG's least size of a target, in CSS px. */
const least = 24;
/** A picture of its own size has 72 px to the inch there. */
const ownScale = 96 / 72;

/** A hotspot that is too small to be hit, at the size at which the PDF shows its picture. */
export const hotspotSmall: ChapterRule = {
  id: "hotspot-small",
  title: "A hotspot is too small to hit",
  severity: "fix",
  source: "WCAG 2.2 SC 2.5.8: 24 by 24 CSS px",
  findInChapter: (doc, _links, { pictureSizes, textWidth }) => {
    const found: { subject: string; message: string }[] = [];
    doc.descendants((node) => {
      if (node.type.name !== "picture") return;
      const { file, width, hotspots } = pictureAttrs(node);
      const size = file === null ? undefined : pictureSizes.get(file);
      if (!size) return;
      const shown = width === null ? Math.min(size.width * ownScale, textWidth) : (textWidth * width) / 100;
      for (const hotspot of hotspots) {
        const box = hotspotBox(hotspot);
        const across = box.width * shown;
        const down = box.height * shown * (size.height / size.width);
        if (across >= least && down >= least) continue;
        found.push({
          subject: hotspot.id,
          message: `On the page of the PDF this hotspot has ${Math.round(across)} by ${Math.round(down)} px; ${least} by ${least} is asked. Make it larger, or show the picture wider.`,
        });
      }
    });
    return found;
  },
};
