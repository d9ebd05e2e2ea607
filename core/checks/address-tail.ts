import { webDestination } from "../destination/kinds/web.ts";
import { answerOf, type LinkRule } from "./finding.ts";

/**
 * A blank, quote, full stop or bracket that came along at the end of an address. Some addresses do end with a full stop or
 * exclamation mark: one that answers is right as it is.
 */
export const addressTail: LinkRule = {
  id: "address-tail",
  title: "Something clings to the end of an address",
  severity: "fix",
  source: "RFC 3986, appendix C: delimiters around an address are no part of it",
  find: (links, context) =>
    links.flatMap((link) => {
      const { id, destination } = link;
      if (destination.kind !== "web") return [];
      const tail = tailOf(destination.address);
      const { state } = answerOf(link, context) ?? {};
      return tail === "" || state === "sound" || state === "moved"
        ? []
        : [
            {
              subject: id,
              message: `The address ends with ${named(tail)}, which hardly belongs to it. Take it off, or accept it.`,
            },
          ];
    }),
  isSure: (link, context) =>
    link.destination.kind === "web" &&
    (!/^[.!]+$/.test(tailOf(link.destination.address)) || answerOf(link, context)?.state === "broken"),
  mend: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const { address } = destination;
    const tail = tailOf(address);
    return tail === "" ? null : { destination: webDestination(address.slice(0, -tail.length)) };
  },
};

/** What clings to an address at its end, as it is written there; empty where nothing does. */
function tailOf(address: string): string {
  const tail = /(?:%20|%22|%27|%E2%80%9[CDcd89]|%C2%BB|["'.,;:!\])>])+$/i.exec(address)?.[0] ?? "";
  // A bracket belongs to the address where its partner is inside.
  const isPaired = /^\)+$/.test(tail) && address.split("(").length === address.split(")").length;
  return isPaired ? "" : tail;
}

function named(tail: string): string {
  const shown = decodeURIComponent(tail);
  return shown.trim() === "" ? "a blank" : `“${shown.trim()}”`;
}
