import { toUnicode } from "punycode/punycode.es6.js";
import { urlOf } from "../destination/url-of.ts";
import { byHost } from "./by-host.ts";
import type { LinkRule } from "./finding.ts";

// The scripts whose letters are mistaken for one another; Japanese and Korean names mix theirs rightly.
const scripts: [name: string, pattern: RegExp][] = [
  ["Latin", /\p{Script=Latin}/u],
  ["Cyrillic", /\p{Script=Cyrillic}/u],
  ["Greek", /\p{Script=Greek}/u],
  ["Armenian", /\p{Script=Armenian}/u],
  ["Cherokee", /\p{Script=Cherokee}/u],
];

function scriptsIn(label: string): string[] {
  return scripts.flatMap(([name, pattern]) => (pattern.test(label) ? [name] : []));
}

const mixedLabel = byHost((host) =>
  toUnicode(host)
    .split(".")
    .find((label) => scriptsIn(label).length > 1),
);

/** A host with letters of several scripts, some of which look like those of another. */
export const mixedScripts: LinkRule = {
  id: "mixed-scripts",
  title: "A host mixes letters of several scripts",
  severity: "fix",
  source: "UTS 39, section 5.1: mixed-script detection (from memory)",
  find: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const mixed = mixedLabel(urlOf(destination).hostname);
    return mixed === undefined
      ? null
      : `“${mixed}” mixes letters of ${scriptsIn(mixed).join(" and ")}, which look alike. Make sure that it is the site that you mean.`;
  },
};
