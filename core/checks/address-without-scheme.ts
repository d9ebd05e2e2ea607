import { recognise } from "../destination/recognise.ts";
import type { WebDestination } from "../destination/kinds/web.ts";
import type { LinkRule } from "./finding.ts";

/** A domain that came in without its scheme, and so became the name of a file. */
export const addressWithoutScheme: LinkRule = {
  id: "address-without-scheme",
  title: "An address has no scheme",
  severity: "fix",
  source: "RFC 3986, section 4.2: without its scheme an address is a relative reference",
  find: ({ destination }) =>
    destination.kind === "file" && "path" in destination && webWithoutScheme(destination.path)
      ? `“${destination.path}” is written as a file's name, so readers' programs look for a file. Write it as a web address, with https:// before it.`
      : null,
  // It may yet be the name of a file.
  isSure: ({ destination }) =>
    destination.kind === "file" && "path" in destination && /^www\./i.test(destination.path),
  mend: ({ destination }) => {
    const web =
      destination.kind === "file" && "path" in destination ? webWithoutScheme(destination.path) : null;
    return web && { destination: web };
  },
};

/**
 * Endings of files that are top-level domains too (IANA's list; common practice). Where a path ends with one and
 * does not begin as only hosts do, a file is meant.
 */
const fileEndings = new Set(
  "ac am as bz cab cat cc cl cr gd in java la ls md mk ml mov ms pl pm ps pub py rs sh so st tf ws xyz zip".split(
    " ",
  ),
);

/** The web address that a path without a scheme is meant as; null where it is the name of a file, or nothing of that kind. */
export function webWithoutScheme(path: string): WebDestination | null {
  try {
    const { destination } = recognise(path);
    if (destination.kind !== "web") return null;
    const { hostname, pathname } = new URL(destination.address);
    const labels = hostname.split(".");
    if (labels.includes("")) return null;
    const isFile = labels[0] !== "www" && pathname === "/" && fileEndings.has(labels.at(-1)!);
    return isFile ? null : destination;
  } catch {
    return null;
  }
}
