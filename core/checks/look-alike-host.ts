import { parse } from "tldts";
import { urlOf } from "../destination/url-of.ts";
import { isOneSlip } from "./one-slip.ts";
import type { LinkAlone, LinkRule } from "./finding.ts";

/** Signs that are read for others, as they are drawn in most letters (UTS 39, confusables, from memory). */
const drawnAlike: [RegExp, string][] = [
  [/[0о]/g, "o"],
  [/[1iі|]/g, "l"],
  [/rn/g, "m"],
  [/vv/g, "w"],
  [/5/g, "s"],
  [/[а]/g, "a"],
  [/[е]/g, "e"],
  [/[с]/g, "c"],
  [/[р]/g, "p"],
  [/[-_]/g, ""],
];

/** Words that name one site, and an address of another that looks like it. */
export const lookAlikeHost: LinkRule = {
  id: "look-alike-host",
  title: "The words name a site, and a look-alike of it is opened",
  severity: "fix",
  source: "UTS 39, section 4: confusable detection (from memory); common practice",
  find: (link) => {
    const found = lookAlike(link);
    return (
      found &&
      `The words say ${found.said}, and the link opens ${found.opened}, which only looks like it. Make sure that it is the site that you mean.`
    );
  },
};

function lookAlike({ text, destination }: LinkAlone): { said: string; opened: string } | null {
  // Most words name no site.
  if (destination.kind !== "web" || !text.includes(".")) return null;
  const { hostname } = urlOf(destination);
  const opened = domainOf(hostname);
  for (const [said] of text.toLowerCase().matchAll(/[a-z\d][a-z\d.-]*\.[a-z]{2,}(?![\w-])/g)) {
    // Words that are an address as a whole have a rule of their own.
    if (said === text.trim().toLowerCase() || !isHost(said)) continue;
    const meant = domainOf(said);
    if (meant !== opened && looksLike(meant, opened, hostname)) return { said, opened: hostname };
  }
  return null;
}

function looksLike(meant: string, opened: string, host: string): boolean {
  const drawn = (name: string): string =>
    drawnAlike.reduce((text, [sign, read]) => text.replace(sign, read), name);
  if (drawn(meant) === drawn(opened) || isOneSlip(opened, meant)) return true;
  // The name that is meant, as a part of another’s: tides.example.elsewhere.example, tides-example.elsewhere.example.
  return `.${host}`.includes(`.${meant}.`) || host.split(".").includes(meant.replace(/\./g, "-"));
}

function isHost(name: string): boolean {
  return parse(name).isIcann === true || /\.(?:example|test)$/.test(name);
}

function domainOf(host: string): string {
  return parse(host).domain ?? host;
}
