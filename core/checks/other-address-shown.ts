import { isPlainlyAnAddress, recognise } from "../destination/recognise.ts";
import type { LinkRule } from "./finding.ts";

/** An address as link text whose host is not the one that the link leads to. */
export const otherAddressShown: LinkRule = {
  id: "other-address-shown",
  title: "The text shows one address and leads to another",
  severity: "fix",
  source: "common practice: an address that is shown is the one that is opened",
  find: (links) =>
    links.flatMap(({ id, text, destination }) => {
      const shown =
        destination.kind === "web" && isPlainlyAnAddress(text) ? recognise(text).destination : null;
      if (shown?.kind !== "web" || destination.kind !== "web") return [];
      const [seen, opened] = [hostOf(shown.address), hostOf(destination.address)];
      return seen === opened
        ? []
        : [
            {
              subject: id,
              message: `The text shows ${seen}, and the link leads to ${opened}. Say in words where it leads, or change one of them.`,
            },
          ];
    }),
};

function hostOf(address: string): string {
  return new URL(address).host.replace(/^www\./, "");
}
