import { webDestination } from "../destination/kinds/web.ts";
import { withoutParts } from "./address-parts.ts";
import type { LinkRule } from "./finding.ts";

/** A part of an address that tells somebody who came from where, and nothing about the page (common practice). */
export const tracking =
  /^(?:utm_[a-z]+|(?:fb|g|d|y|tt|s|irc)clid|msclkid|twclid|li_fat_id|gclsrc|wbraid|gbraid|mc_[ce]id|mkt_tok|_hs(?:enc|mi)|igshid|oly_(?:anon|enc)_id|vero_id|_openstat|pk_(?:campaign|kwd|source|medium|content)|mtm_[a-z]+|wt_mc|cmpid|ref_src|ref_url)$/i;

/** An address with parts by which readers are counted or followed. */
export const trackingPart: LinkRule = {
  id: "tracking-part",
  title: "An address has parts that follow readers",
  severity: "consider",
  source: "common practice: such parts count who came from where, and the page is the same without them",
  find: (links) =>
    links.flatMap(({ id, destination }) => {
      if (destination.kind !== "web") return [];
      const { left } = withoutParts(destination, tracking);
      return left.length === 0
        ? []
        : [
            {
              subject: id,
              message: `${left.map((name) => `“${name}”`).join(", ")} in the address ${left.length === 1 ? "tells" : "tell"} others where readers came from. The page is hardly another without.`,
            },
          ];
    }),
  // The server alone knows what it does with them.
  isSure: () => false,
  mend: ({ destination }) =>
    destination.kind === "web"
      ? { destination: webDestination(withoutParts(destination, tracking).address) }
      : null,
};
