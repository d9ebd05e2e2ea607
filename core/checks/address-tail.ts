import { percentDecoded } from "../destination/percent-decoded.ts";
import { webDestination } from "../destination/kinds/web.ts";
import { answerOf, type BookRule } from "./finding.ts";

/**
 * A blank, quote, full stop or bracket that came along at the end of an address. Some addresses do end with a full stop or
 * exclamation mark: one that answers is right as it is.
 */
export const addressTail: BookRule = {
  id: "address-tail",
  title: "Something clings to the end of an address",
  severity: "fix",
  source: "RFC 3986, appendix C: delimiters around an address are no part of it",
  findInBook: ({ destination }, _context, answer) => {
    if (destination.kind !== "web") return null;
    const tail = tailOf(destination.address);
    return tail === "" || answer?.state === "sound" || answer?.state === "moved"
      ? null
      : `The address ends with ${named(tail)}, which hardly belongs to it. Take it off, or accept it.`;
  },
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

const clinging = /(?:%20|%22|%27|%E2%80%9[CDcd89]|%C2%BB|["'.,;:!\])>])$/i;

/** What clings to an address at its end, as it is written there; empty where nothing does. */
function tailOf(address: string): string {
  // What follows is words of the page, which may well end so.
  if (address.includes("#:~:")) return "";
  let end = address.length;
  for (;;) {
    const rest = address.slice(0, end);
    const sign = clinging.exec(rest)?.[0];
    if (!sign || isPaired(sign, rest)) return address.slice(end);
    end -= sign.length;
  }
}

/** Whether a bracket or quote belongs to the address, since its partner is inside. */
function isPaired(sign: string, address: string): boolean {
  const count = (one: string): number => address.toLowerCase().split(one.toLowerCase()).length - 1;
  if (sign === ")") return count("(") === count(")");
  return /^(?:%22|%27|["'])$/.test(sign) && count(sign) % 2 === 0;
}

function named(tail: string): string {
  const shown = percentDecoded(tail);
  return shown.trim() === "" ? "a blank" : `“${shown.trim()}”`;
}
