import { recognise } from "../destination/recognise.ts";
import type { WebDestination } from "../destination/kinds/web.ts";
import type { LinkRule } from "./finding.ts";

/** A domain that came in without its scheme, and so became the name of a file. */
export const addressWithoutScheme: LinkRule = {
  id: "address-without-scheme",
  title: "An address has no scheme",
  severity: "fix",
  source: "RFC 3986, section 4.2: without its scheme an address is a relative reference",
  find: (links) =>
    links.flatMap(({ id, destination }) =>
      destination.kind === "file" && "path" in destination && asWeb(destination.path)
        ? [
            {
              subject: id,
              message: `“${destination.path}” has no https:// before it, so readers' programs look for a file of that name. Put it in.`,
            },
          ]
        : [],
    ),
  mend: ({ destination }) => {
    const web = destination.kind === "file" && "path" in destination ? asWeb(destination.path) : null;
    return web && { destination: web };
  },
};

function asWeb(path: string): WebDestination | null {
  try {
    const { destination } = recognise(path);
    return destination.kind === "web" ? destination : null;
  } catch {
    return null;
  }
}
