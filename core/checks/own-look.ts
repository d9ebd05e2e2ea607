import { judgeLook } from "./contrast.ts";
import type { LinkRule } from "./finding.ts";

/** A link whose own look cannot be read, or told from the text around it. */
export const ownLook: LinkRule = {
  id: "own-look",
  title: "A link’s own look is hardly seen",
  severity: "fix",
  source: "WCAG 2.2 SC 1.4.3 (4.5 on paper), SC 1.4.1 with techniques G182 and G183 (3 beside the text)",
  find: ({ look, asText }) => {
    if (look === null || asText) return null;
    const { isReadable, isTold, onPaper, besideText } = judgeLook(look);
    if (!isReadable)
      return `The link’s own colour has a contrast of ${onPaper.toFixed(2)} with the paper; 4.5 is asked. Choose a darker one, or the look of its kind.`;
    return isTold
      ? null
      : `The link’s own look has no underline and a contrast of ${besideText.toFixed(2)} with the text; 3 is asked. Underline it, or choose another colour.`;
  },
  mend: () => ({ look: null }),
};
