import { shareOf, type BookRule } from "./finding.ts";

/** A shared file that the book's readers may not open. */
export const shareTooNarrow: BookRule = {
  id: "share-too-narrow",
  title: "Readers may not open a shared file",
  severity: "fix",
  source: "common practice: who may open a shared file is settled before the book goes out",
  findInBook: (link, context) => {
    const share = shareOf(link, context);
    if (!share || share.kind === "anyone") return null;
    if (share.kind === "group" && share.name === context.audience) return null;
    const who = share.kind === "owner" ? "only its owner" : `only ${share.name}`;
    const readers = context.audience === "anyone" ? "anyone" : context.audience;
    return `The file opens for ${who}, and the book is for ${readers}. Share it with them, or bring it in as a companion file.`;
  },
};
