import { parse } from "tldts";
import type { WebDestination } from "../destination/kinds/web.ts";
import { readMailto } from "../destination/mailto.ts";
import { isPlainlyAnAddress, recognise } from "../destination/recognise.ts";
import { webWithoutScheme } from "./address-without-scheme.ts";
import type { LinkAlone, LinkRule } from "./finding.ts";

/** An address as link text that is not the one to which the link leads: another host, another page, another mailbox. */
export const otherAddressShown: LinkRule = {
  id: "other-address-shown",
  title: "The text shows one address and leads to another",
  severity: "fix",
  source: "common practice: an address that is shown is the one that is opened",
  find: (link) => {
    const other = otherShown(link);
    return (
      other &&
      `The text shows ${other.seen}, and the link leads to ${other.opened}. Say in words where it leads, or change one of them.`
    );
  },
};

function otherShown({ text, destination }: LinkAlone): { seen: string; opened: string } | null {
  const words = text.trim();
  const isPlain = isPlainlyAnAddress(words);
  const shown = isPlain ? recognise(words).destination : bareHost(words);
  if (shown?.kind === "email" && destination.kind === "email") {
    const [[seen = ""], opened] = [readMailto(shown.address).to, readMailto(destination.address).to];
    const isSame = opened.some((one) => one.toLowerCase() === seen.toLowerCase());
    return isSame || opened.length === 0 ? null : { seen, opened: opened.join(", ") };
  }
  if (shown?.kind === "email" && destination.kind === "web") {
    // A page of the same house may well be about the mailbox.
    const opened = new URL(destination.address);
    const isSameHouse = domainOf(opened) === domainOf(new URL(`https://${words.split("@").at(-1)!}`));
    return isSameHouse ? null : { seen: words, opened: hostOf(opened) };
  }
  if (shown?.kind === "web" && isPlain && destination.kind === "email")
    return { seen: hostOf(new URL(shown.address)), opened: readMailto(destination.address).to.join(", ") };
  if (shown?.kind !== "web" || destination.kind !== "web") return null;
  const [seen, opened] = [new URL(shown.address), new URL(destination.address)];
  // A name in the address that only looks like a host: “core.abc” for /functions/core.abc.html.
  if (!isPlain && pathOf(opened).toLowerCase().includes(words)) return null;
  const isOtherHost = isPlain ? hostOf(seen) !== hostOf(opened) : domainOf(seen) !== domainOf(opened);
  if (isOtherHost) return { seen: hostOf(seen), opened: hostOf(opened) };
  // What is shown is often shortened at its end, and says nothing of what stands behind.
  const [path, whole] = [pathOf(seen), pathOf(opened)];
  const isOtherPage = /^https?:/i.test(words) && !/(…|\.\.\.)$/.test(words) && !whole.startsWith(path);
  return isOtherPage ? { seen: hostOf(seen) + path, opened: hostOf(opened) + whole } : null;
}

/** A host by itself, in small letters and under a name that there is: with capitals it may well be called so. */
function bareHost(words: string): WebDestination | null {
  const isHost = /^[a-z\d-]+(\.[a-z\d-]+)+$/.test(words);
  const isThere = isHost && (parse(words).isIcann || /\.(?:example|test)$/.test(words));
  return isThere ? webWithoutScheme(words) : null;
}

/** What somebody has registered, of which all hosts are one’s own. */
function domainOf({ hostname }: URL): string {
  return parse(hostname, { allowPrivateDomains: true }).domain ?? hostname;
}

function hostOf({ host }: URL): string {
  return host.replace(/^www\./, "");
}

function pathOf({ pathname }: URL): string {
  try {
    return decodeURI(pathname).replace(/\/+$/, "");
  } catch {
    return pathname.replace(/\/+$/, "");
  }
}
