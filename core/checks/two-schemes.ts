import { webDestination } from "../destination/kinds/web.ts";
import type { LinkRule } from "./finding.ts";

// The URL parser reads the second scheme as a host, and drops its colon as that of an empty port.
const doubled = /^https?:\/\/(https?):?\/\//i;

/** An address that was pasted behind the scheme of another, as in https://http://tides.example/. */
export const twoSchemes: LinkRule = {
  id: "two-schemes",
  title: "An address has two schemes",
  severity: "fix",
  source: "RFC 3986, section 3: an address has one scheme",
  find: ({ destination }) =>
    destination.kind === "web" && doubled.test(destination.address)
      ? "The address begins with two schemes. Take the first one off."
      : null,
  mend: ({ destination }) =>
    destination.kind === "web"
      ? { destination: webDestination(destination.address.replace(doubled, "$1://")) }
      : null,
};
