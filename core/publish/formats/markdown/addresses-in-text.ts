import type { Link } from "mdast";
import { defaultHandlers, type Handle, type Options as ToMarkdownExtension } from "mdast-util-to-markdown";

/** What may stand between angle brackets as a link (CommonMark 0.31, 6.5): an address with a scheme, or one of an inbox. */
const inAngles =
  /^(?:[a-z][a-z0-9+.-]{1,31}:[^\s<>]*|[\w.!#$%&'*+/=?^`{|}~-]+@[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?)*)$/i;

/** A link whose words are no address for parsers stands between square brackets, as any other. */
const link =
  (write: Handle): Handle =>
  (node: Link, parent, state, info) => {
    const { options } = state;
    const [words] = node.children;
    state.options = { ...options, resourceLink: words?.type !== "text" || !inAngles.test(words.value) };
    const written = write(node, parent, state, info);
    state.options = options;
    return written;
  };

/** Keeps to what parsers take for an address in a text, and what not. */
export const addressesInText: ToMarkdownExtension = {
  handlers: {
    link: Object.assign(link(defaultHandlers.link as Handle), {
      peek: link(defaultHandlers.link.peek as Handle),
    }),
  },
  unsafe: [
    {
      // “www.” at the end of a sentence is one for them, too.
      character: ".",
      before: "[Ww]{3}",
      inConstruct: "phrasing",
      notInConstruct: ["autolink", "link", "image", "label"],
    },
  ],
};
