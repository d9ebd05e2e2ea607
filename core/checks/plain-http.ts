import { urlOf } from "../destination/url-of.ts";
import { answerOf, type LinkRule } from "./finding.ts";

/** From so many links on a book has a habit. */
const habit = 5;
/** At most so many of its links go against it. */
const exception = 0.1;

/** An http address in a book whose other addresses say https. */
export const plainHttp: LinkRule = {
  id: "plain-http",
  title: "An address says http where the others say https",
  severity: "consider",
  source: "RFC 9110, section 4.2.2 (from memory): https keeps what readers ask to themselves",
  find: (links, context) => {
    const { http, https } = context.schemes;
    if (https < habit || http > (http + https) * exception) return [];
    return links.flatMap((link) => {
      const { id, destination } = link;
      if (destination.kind !== "web") return [];
      const { protocol, hostname, port } = urlOf(destination);
      // Where the page was asked it is known whether https answers.
      const isOpen = protocol === "http:" && port === "" && answerOf(link, context) === undefined;
      return isOpen && /\.[a-z]/i.test(hostname)
        ? [
            {
              subject: id,
              message: `The address says http, ${https} others of the book say https. Check it: if the page answers by https too, that is offered.`,
            },
          ]
        : [];
    });
  },
};
