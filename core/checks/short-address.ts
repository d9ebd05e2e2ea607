import { webDestination } from "../destination/kinds/web.ts";
import { urlOf } from "../destination/url-of.ts";
import { answerOf, type CheckContext, type CheckedLink, type BookRule } from "./finding.ts";

/** Hosts that do nothing but lead from short addresses to others (common practice). */
const services = new Set(
  "bit.ly bitly.com tinyurl.com t.co goo.gl ow.ly is.gd v.gd buff.ly rb.gy cutt.ly t.ly tiny.cc shorturl.at rebrand.ly lnkd.in fb.me amzn.to dlvr.it trib.al adf.ly t1p.de urlz.fr".split(
    " ",
  ),
);

/** An address of a service that leads on to another, which readers do not see and which ends with the service. */
export const shortAddress: BookRule = {
  id: "short-address",
  title: "A short address hides where it leads",
  severity: "consider",
  source:
    "common practice: readers see where a link leads, and the services that shorten addresses come to an end",
  findInBook: (link, context, answer) => {
    const { destination } = link;
    if (destination.kind !== "web") return null;
    const { hostname, pathname } = urlOf(destination);
    // Of what is broken, or has moved for good, another rule tells.
    if (!isService(hostname) || pathname === "/" || answer?.state === "broken" || answer?.state === "moved")
      return null;
    const isKnown = endOf(link, context) !== null;
    return `${hostname} only leads on to another address, for as long as it lasts. ${isKnown ? "Give the address at its end." : "Check it, and where it leads is offered."}`;
  },
  isSure: () => false,
  mend: (link, context) => {
    const end = endOf(link, context);
    return end === null ? null : { destination: webDestination(end) };
  },
};

/** Where asking ended, if that is with another house. */
function endOf(link: CheckedLink, context: CheckContext): string | null {
  const answer = answerOf(link, context);
  if (answer?.state !== "sound" || !answer.endsAt) return null;
  return isService(new URL(answer.endsAt).hostname) ? null : answer.endsAt;
}

function isService(host: string): boolean {
  return services.has(host.startsWith("www.") ? host.slice("www.".length) : host);
}
