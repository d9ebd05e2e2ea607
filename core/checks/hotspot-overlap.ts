import { coveredShare, type Hotspot } from "../manuscript/hotspot.ts";
import { pictureNodes } from "../manuscript/picture-nodes.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import type { ChapterRule } from "./finding.ts";
import { checkedPage, type BoxOnPage, type PageOfFile } from "./page-of-file.ts";

/** From this share on an area counts as covered: what is left of it nobody can aim at. */
const covered = 0.95;
/** Below this share two areas only touch. */
const overlapping = 0.01;

/** A hotspot that lies under others, wholly or in part, so that a tap goes somewhere else. */
export const hotspotOverlap: ChapterRule = {
  id: "hotspot-overlap",
  title: "Hotspots lie over one another",
  severity: "fix",
  source: "common practice: a clickable area must not be covered",
  findInChapter: (doc, _links, context) => {
    const page = checkedPage(context);
    if (page) return coveredOnPage(page);
    return pictureNodes(doc).flatMap((node) => coveredHotspots(pictureAttrs(node).hotspots));
  },
};

interface Covered {
  subject: string;
  message: string;
}

/** What there is to say of each hotspot of a picture, the lowest first, that lies under others. */
export function coveredHotspots(
  hotspots: readonly Pick<Hotspot, "id" | "shape" | "points" | "alt">[],
): Covered[] {
  return hotspots.flatMap((below, i) => {
    let worst: { name: string; share: number } | null = null;
    for (const above of hotspots.slice(i + 1)) {
      const share = coveredShare(below, above);
      if (share > (worst?.share ?? overlapping)) worst = { name: above.alt, share };
    }
    if (!worst) return [];
    const other = worst.name ? `the hotspot “${worst.name}”` : "another hotspot";
    const message =
      worst.share >= covered
        ? `This hotspot is covered by ${other}. Move one of them, or change their order.`
        : `${upper(other)} lies over ${Math.max(1, Math.round(worst.share * 100))} % of this one. Move them apart.`;
    return [{ subject: below.id, message }];
  });
}

/** From this share on another link takes most presses; lines of words that follow each other may touch. */
const mostly = 0.5;

/** The links of a page that lie mostly under others, which lead elsewhere. */
function coveredOnPage({ links }: PageOfFile): Covered[] {
  return links.flatMap((below, i) => {
    const whole = below.boxes.reduce((sum, box) => sum + sizeOf(box), 0);
    const above = links.slice(i + 1).find((other) => {
      if (other.to === below.to || whole === 0) return false;
      const shared = below.boxes.reduce(
        (sum, box) => sum + Math.max(0, ...other.boxes.map((one) => sizeOf(common(box, one)))),
        0,
      );
      return shared / whole > mostly;
    });
    if (!above) return [];
    const other = above.name ? `the link “${above.name}”` : "another link";
    return [
      { subject: below.id, message: `A press meets ${other}, which lies over this one. Move them apart.` },
    ];
  });
}

function common(a: BoxOnPage, b: BoxOnPage): BoxOnPage {
  return {
    left: Math.max(a.left, b.left),
    top: Math.max(a.top, b.top),
    right: Math.min(a.right, b.right),
    bottom: Math.min(a.bottom, b.bottom),
  };
}

function sizeOf({ left, top, right, bottom }: BoxOnPage): number {
  return Math.max(0, right - left) * Math.max(0, bottom - top);
}

function upper(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
