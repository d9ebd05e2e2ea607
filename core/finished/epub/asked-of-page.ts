import { newFragment, type EpubPage, type EpubPlace } from "./epub-page.ts";
import { linksIn, type PageEvent } from "./page-events.ts";

/** What of a page that came ought to be otherwise besides where links lead. */
export interface AskedOfPage {
  page: EpubPage;
  /** The places of the page that get a name, since links lead to them. */
  named: readonly EpubPlace[];
}

/** A page as it came, with all that is asked of it but its links: what they say, names of places, areas that are gone. */
export function asAsked(came: readonly PageEvent[], { page, named }: AskedOfPage): PageEvent[] {
  const links = new Map(page.links.flatMap((link) => (link.from === null ? [] : [[link.from, link]])));
  const kept = new Set([...links.keys(), ...page.untouched.map(({ from }) => from)]);
  const newIds = new Map(
    named.flatMap((place) => (place.fragment === null ? [[place.element, newFragment(place, page)]] : [])),
  );
  const was = linksIn(came);
  const ends = new Map(came.flatMap((event, i) => (event.kind === "close" ? [[event.of, i]] : [])));
  /** What stands for each event. */
  const events = came.map((event): PageEvent[] => {
    const id = event.kind === "open" ? newIds.get(event.element) : undefined;
    return event.kind === "open" && id !== undefined
      ? [{ ...event, attributes: { id, ...event.attributes } }]
      : [event];
  });
  for (const [at, event] of came.entries()) {
    if (event.kind !== "open" || event.link === null) continue;
    const end = ends.get(at)!;
    const link = links.get(event.link);
    const isGone = !kept.has(event.link);
    if (isGone && event.local === "area") events.fill([], at, end + 1);
    // What is a link no more, and nothing else, is not there at all.
    else if (isGone && !("id" in event.attributes) && !("name" in event.attributes))
      events[at] = [{ ...event, attributes: {} }];
    else if (link?.hasOwnWords && link.words !== was[event.link]!.words) say(events, at, end, link.words);
  }
  // What closes an element says where among the events it began.
  const starts: number[] = [];
  let count = 0;
  for (const one of events) {
    starts.push(count);
    count += one.length;
  }
  return events.flat().map((event) => (event.kind === "close" ? { ...event, of: starts[event.of]! } : event));
}

/** Lets a link, whose events are those from one to another, say other words than it did. */
function say(events: PageEvent[][], at: number, end: number, words: string): void {
  const within = Array.from({ length: end - at - 1 }, (_, i) => at + 1 + i);
  const isArea = events[at]!.some((event) => event.kind === "open" && event.local === "area");
  const picture = within.find((i) => events[i]!.some((one) => one.kind === "open" && one.local === "img"));
  const told = isArea ? at : picture;
  if (told !== undefined) {
    events[told] = events[told]!.map((event) =>
      event.kind === "open" ? { ...event, attributes: { ...event.attributes, alt: words } } : event,
    );
    return;
  }
  const [first, ...rest] = within.filter((i) => events[i]!.some(({ kind }) => kind === "text"));
  const said: PageEvent = { kind: "text", text: words };
  if (first === undefined) events[end] = [said, ...events[end]!];
  else events[first] = [said];
  for (const i of rest) events[i] = [];
}
