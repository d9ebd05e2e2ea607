import { parse } from "tldts";
import type { Destination } from "../destination/kinds/kinds.ts";
import { readMailto } from "../destination/mailto.ts";
import { urlOf } from "../destination/url-of.ts";
import { byHost } from "./by-host.ts";
import type { LinkRule } from "./finding.ts";

const unknownEnd = byHost((host) => {
  const { isIcann, isPrivate, isIp, publicSuffix } = parse(host);
  const isKept = /\.(?:example|test|invalid|localhost|local|internal|arpa|onion)$/i.test(host);
  // A name of one part is one's own network's.
  return isIcann || isPrivate || isIp || isKept || !host.includes(".") ? null : (publicSuffix ?? host);
});

/** A host of a web address or an email whose last part no registry has. */
export const unknownTopLevel: LinkRule = {
  id: "unknown-top-level",
  title: "A host ends with a name that does not exist",
  severity: "fix",
  source: "the public suffix list, through tldts; RFC 2606 for names that are kept for examples",
  find: ({ destination }) => {
    const host = hostOf(destination);
    const end = host === null ? null : unknownEnd(host);
    return end === null ? null : `There is no top-level name “.${end}”. Look for a slip in ${host}.`;
  },
};

function hostOf(destination: Destination): string | null {
  if (destination.kind === "web") return urlOf(destination).hostname;
  if (destination.kind === "email") return readMailto(destination.address).to[0]?.split("@").at(-1) ?? null;
  return null;
}
