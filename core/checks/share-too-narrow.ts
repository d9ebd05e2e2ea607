import { shareOf, type LinkRule } from "./finding.ts";

/** A shared file that the book's readers may not open. */
export const shareTooNarrow: LinkRule = {
  id: "share-too-narrow",
  title: "Readers may not open a shared file",
  severity: "fix",
  source: "common practice: who may open a shared file is settled before the book goes out",
  find: (links, context) =>
    links.flatMap((use) => {
      const share = shareOf(use, context);
      if (!share || share.kind === "anyone") return [];
      if (share.kind === "group" && share.name === context.audience) return [];
      const who = share.kind === "owner" ? "only its owner" : `only ${share.name}`;
      const readers = context.audience === "anyone" ? "anyone" : context.audience;
      return [
        {
          subject: use.id,
          message: `The file opens for ${who}, and the book is for ${readers}. Share it with them, or bring it in as a companion file.`,
        },
      ];
    }),
};
