import { hotspotBox } from "../manuscript/hotspot.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { linkOn } from "../manuscript/schema.ts";
import type { ChapterRule } from "./finding.ts";

/** WCAG's least size of a target, in CSS px. */
const least = 24;
/** A picture of its own size has 72 px to the inch there. */
const ownScale = 96 / 72;

/** A hotspot, or a picture that is a link, which is too small to be hit at the size at which the PDF shows it. */
export const hotspotSmall: ChapterRule = {
  id: "hotspot-small",
  title: "A picture’s link is too small to hit",
  severity: "fix",
  source: "WCAG 2.2 SC 2.5.8: 24 by 24 CSS px",
  findInChapter: (doc, links, { pictureSizes, textWidth }) => {
    const pictures = pictureNodes(doc);
    if (pictures.length === 0) return [];
    const pictureLinks = new Set(links.flatMap(({ id, on }) => (on === "picture" ? [id] : [])));
    const found: { subject: string; message: string }[] = [];
    for (const node of pictures) {
      const { file, width, hotspots } = pictureAttrs(node);
      const size = file === null ? undefined : pictureSizes.get(file);
      if (!size) continue;
      const shown = width === null ? Math.min(size.width * ownScale, textWidth) : (textWidth * width) / 100;
      const judge = (subject: string, what: string, across: number, down: number): void => {
        if (across >= least && down >= least) return;
        found.push({
          subject,
          message: `On the page of the PDF this ${what} has ${Math.round(across)} by ${Math.round(down)} px; ${least} by ${least} is asked. Make it larger, or show the picture wider.`,
        });
      };
      const down = shown * (size.height / size.width);
      const link = linkOn(node);
      // With words beside it, the words are there to be hit too.
      if (link && pictureLinks.has(link.id)) judge(link.id, "picture", shown, down);
      for (const hotspot of hotspots) {
        const box = hotspotBox(hotspot);
        judge(hotspot.id, "hotspot", box.width * shown, box.height * down);
      }
    }
    return found;
  },
};
