import { webDestination } from "../destination/kinds/web.ts";
import { tracking, withoutParts } from "../destination/address-parts.ts";
import type { LinkRule } from "./finding.ts";

/** An address with parts by which readers are counted or followed. */
export const trackingPart: LinkRule = {
  id: "tracking-part",
  title: "An address has parts that follow readers",
  severity: "consider",
  source: "common practice: such parts count who came from where, and the page is the same without them",
  find: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const { left } = withoutParts(destination, tracking);
    return left.length === 0
      ? null
      : `${left.map((name) => `“${name}”`).join(", ")} in the address ${left.length === 1 ? "tells" : "tell"} others where readers came from. The page is hardly another without.`;
  },
  // The server alone knows what it does with them.
  isSure: () => false,
  mend: ({ destination }) =>
    destination.kind === "web"
      ? { destination: webDestination(withoutParts(destination, tracking).address) }
      : null,
};
