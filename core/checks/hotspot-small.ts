import { hotspotBox } from "../manuscript/hotspot.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { linkOn } from "../manuscript/schema.ts";
import type { ChapterRule, Found } from "./finding.ts";
import { around, checkedPage, type BoxOnPage, type PageOfFile } from "./page-of-file.ts";

/** WCAG's least size of a target, in CSS px. */
const least = 24;

/** A hotspot, or a picture that is a link, which is too small to be hit at the size at which the PDF shows it. */
export const hotspotSmall: ChapterRule = {
  id: "hotspot-small",
  title: "A picture’s link is too small to hit",
  severity: "fix",
  source: "WCAG 2.2 SC 2.5.8: 24 by 24 CSS px, or as much room around it",
  findInChapter: (doc, links, context) => {
    const page = checkedPage(context);
    if (page) return smallOnPage(page);
    const { pictureSizes, textWidth } = context;
    const pictures = pictureNodes(doc);
    if (pictures.length === 0) return [];
    const pictureLinks = new Set(links.flatMap(({ id, on }) => (on === "picture" ? [id] : [])));
    const found: { subject: string; message: string }[] = [];
    for (const node of pictures) {
      const { file, width, hotspots } = pictureAttrs(node);
      const size = file === null ? undefined : pictureSizes.get(file);
      if (!size) continue;
      const shown = width === null ? Math.min(size.width, textWidth) : (textWidth * width) / 100;
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

/**
 * The areas of a page that lie on no words, are too small, and have another such so close, leading elsewhere, that a press
 * meets it: within a circle of the least width around their middle. What is of words of which the file does not tell the letters
 * stands alone among links on words, and is let be.
 */
function smallOnPage({ links }: PageOfFile): Found[] {
  const areas = links
    .filter(({ isOnWords }) => !isOnWords)
    .map(({ id, to, boxes }) => ({ id, to, boxes, whole: around(boxes) }));
  const isSmall = ({ left, top, right, bottom }: BoxOnPage): boolean =>
    right - left < least || bottom - top < least;
  const middle = ({ left, top, right, bottom }: BoxOnPage): [number, number] => [
    (left + right) / 2,
    (top + bottom) / 2,
  ];
  return areas
    .filter(({ whole }) => isSmall(whole))
    .filter(({ id, to, whole }) => {
      const [x, y] = middle(whole);
      return areas.some((other) => {
        if (other.id === id || other.to === to) return false;
        const isNear = other.boxes.some(
          ({ left, top, right, bottom }) =>
            Math.hypot(Math.max(left - x, 0, x - right), Math.max(top - y, 0, y - bottom)) < least / 2,
        );
        const [otherX, otherY] = middle(other.whole);
        return isNear || (isSmall(other.whole) && Math.hypot(x - otherX, y - otherY) < least);
      });
    })
    .map(({ id, whole: { left, top, right, bottom } }) => ({
      subject: id,
      message: `On the page this area has ${Math.round(right - left)} by ${Math.round(bottom - top)} px, and another is close to it; ${least} by ${least} is asked. Make it larger.`,
    }));
}
