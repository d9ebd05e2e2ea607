import { urlOf } from "../destination/url-of.ts";
import type { BookRule } from "./finding.ts";

/** From so many links on a book has a habit. */
const habit = 5;
/** At most so many of its links go against it. */
const exception = 0.1;

/** An http address in a book whose other addresses say https. */
export const plainHttp: BookRule = {
  id: "plain-http",
  title: "An address says http where the others say https",
  severity: "consider",
  source: "RFC 9110, section 4.2.2 (from memory): https keeps what readers ask to themselves",
  findInBook: ({ destination }, { schemes }, answer) => {
    const { http, https } = schemes;
    if (https < habit || http > (http + https) * exception) return null;
    // Where the page was asked it is known whether https answers.
    if (destination.kind !== "web" || answer !== undefined) return null;
    const { protocol, hostname, port } = urlOf(destination);
    return protocol === "http:" && port === "" && /\.[a-z]/i.test(hostname)
      ? `The address says http, ${https} others of the book say https. Check it: if the page answers by https too, that is offered.`
      : null;
  },
};
