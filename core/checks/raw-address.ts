import { isPlainlyAnAddress } from "../destination/recognise.ts";
import { answerOf, type LinkRule } from "./finding.ts";

/** A web address as link text, which says little to a reader and less to a listener. */
export const rawAddress: LinkRule = {
  id: "raw-address",
  title: "The words are a raw address",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4, technique G91",
  find: ({ text, destination }) =>
    destination.kind === "web" && isPlainlyAnAddress(text) && !text.includes("@")
      ? "The words are a raw address. Say in words where the link leads."
      : null,
  // What the page calls itself says where the link leads.
  mend: (use, context) => {
    const title = answerOf(use, context)?.title;
    return title && use.on === "words" ? { text: title } : null;
  },
};
