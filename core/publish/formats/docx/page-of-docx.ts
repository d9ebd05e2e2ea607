import type { IPageMarginAttributes, IPageSizeAttributes } from "docx";
import { pageSize, type PageLayout } from "../../../manuscript/page-layout.ts";

/** The pages of a document, as the book has them in its PDF; lengths in twips, a twentieth of a point. */
export function pageOfDocx(layout: PageLayout): {
  size: Partial<IPageSizeAttributes>;
  margin: IPageMarginAttributes;
} {
  const inTwips = (mm: number): number => Math.round((mm / 25.4) * 1440);
  const { width, height } = pageSize(layout);
  return {
    size: { width: inTwips(width), height: inTwips(height) },
    margin: {
      left: inTwips(layout.inner),
      right: inTwips(layout.outer),
      top: inTwips(layout.top),
      bottom: inTwips(layout.bottom),
    },
  };
}
