import { SaxesParser } from "saxes";
import { withoutNamedLetters } from "../../import/epub/named-letters.ts";

/** What a parser of XML tells of a page, one after the other. */
export type PageEvent =
  | {
      kind: "open";
      name: string;
      local: string;
      attributes: Readonly<Record<string, string>>;
      /** Which element of the body it is, from 0; -1 outside. */
      element: number;
      /** Which of the page’s links it is, from 0; null where it is none. */
      link: number | null;
    }
  | { kind: "text"; text: string }
  /** `of` is where among the events its element began. */
  | { kind: "close"; of: number }
  | { kind: "other"; told: string };

/** A link as it is read. */
export interface ReadLink {
  href: string;
  title: string | null;
  /** Its words with the text alternatives of its pictures, blanks folded. */
  words: string;
  /** Its id; null where it has none. */
  id: string | null;
}

/** What an element says because it is a link: of those that are links no more it is of no matter. */
const ofLinks: Readonly<Record<string, ReadonlySet<string>>> = {
  a: new Set(["href", "xlink:href", "title", "xlink:title", "epub:type", "role", "target", "rel"]),
  area: new Set(["href", "title"]),
};

/**
 * Reads a page of XHTML (XML 1.0).
 * @throws Error where it is not well-formed
 */
export function pageEvents(text: string): PageEvent[] {
  const events: PageEvent[] = [];
  const open: number[] = [];
  let elements = 0;
  let links = 0;
  let body = -1;
  const parser = new SaxesParser({ xmlns: false });
  const other = (told: string): void => void events.push({ kind: "other", told });
  const onText = (told: string): void => {
    const last = events.at(-1);
    if (last?.kind === "text") last.text += told;
    else events.push({ kind: "text", text: told });
  };
  parser.on("error", ({ message }) => {
    throw new Error(message);
  });
  parser.on("doctype", (told) => other(`doctype ${told}`));
  parser.on("processinginstruction", ({ target, body: told }) => other(`instruction ${target} ${told}`));
  parser.on("comment", (told) => other(`comment ${told}`));
  parser.on("text", onText);
  parser.on("cdata", onText);
  parser.on("opentag", ({ name, attributes }) => {
    const local = name.replace(/^.*:/, "").toLowerCase();
    const isLink =
      body !== -1 && Object.hasOwn(ofLinks, local) && ("href" in attributes || "xlink:href" in attributes);
    open.push(events.length);
    events.push({
      kind: "open",
      name,
      local,
      attributes: { ...attributes },
      element: body === -1 ? -1 : elements++,
      link: isLink ? links++ : null,
    });
    if (local === "body" && body === -1) body = open.at(-1)!;
  });
  parser.on("closetag", () => {
    const of = open.pop()!;
    events.push({ kind: "close", of });
    if (of === body) body = -1;
  });
  parser.write(withoutNamedLetters(text.replace(/^\ufeff/, ""))).close();
  return events;
}

/** All that stands on a page, a line each, but for what makes elements links. */
export function besidesLinks(events: readonly PageEvent[]): string[] {
  const lines: string[] = [];
  let words = "";
  const flush = (): void => {
    if (words !== "") lines.push(JSON.stringify(words));
    words = "";
  };
  const isBareLink = (event: PageEvent): boolean =>
    event.kind === "open" && event.local === "a" && event.element !== -1 && attributesOf(event).length === 0;
  for (const event of events) {
    if (event.kind === "text") words += event.text;
    else if (
      event.kind === "open" ? !isBareLink(event) : event.kind !== "close" || !isBareLink(events[event.of]!)
    ) {
      flush();
      if (event.kind === "open") lines.push(`<${[event.name, ...attributesOf(event)].join(" ")}>`);
      else lines.push(event.kind === "other" ? event.told : "</>");
    }
  }
  flush();
  return lines;
}

function attributesOf({ local, attributes }: PageEvent & { kind: "open" }): string[] {
  return Object.entries(attributes)
    .filter(([name]) => !ofLinks[local]?.has(name))
    .map(([name, value]) => `${name}=${JSON.stringify(value)}`)
    .sort();
}

/** The links of a page in their order. */
export function linksIn(events: readonly PageEvent[]): ReadLink[] {
  const links: ReadLink[] = [];
  const open: (ReadLink | null)[] = [];
  for (const event of events) {
    if (event.kind === "close") open.pop();
    else if (event.kind === "text") say(open, event.text);
    else if (event.kind === "open") {
      const { local, attributes } = event;
      const alternative = attributes["alt"] ?? attributes["aria-label"] ?? "";
      if (local === "img" || local === "image") say(open, ` ${alternative} `);
      const link: ReadLink | null =
        event.link === null
          ? null
          : {
              href: (attributes["href"] ?? attributes["xlink:href"])!.trim(),
              title: (attributes["title"] ?? attributes["xlink:title"])?.trim() || null,
              words: local === "area" ? alternative : "",
              id: attributes["id"] ?? null,
            };
      if (link) links.push(link);
      open.push(link);
    }
  }
  for (const link of links) link.words = link.words.replace(/\s+/g, " ").trim();
  return links;
}

function say(open: readonly (ReadLink | null)[], words: string): void {
  for (const link of open) if (link) link.words += words;
}

/** The words of every element of a page that has an id, blanks folded; of two with one id those of the first. */
export function wordsAtIds(events: readonly PageEvent[]): Map<string, string> {
  const found = new Map<string, string>();
  const open: (string | null)[] = [];
  for (const event of events) {
    if (event.kind === "close") open.pop();
    else if (event.kind === "text") {
      for (const id of new Set(open)) if (id !== null) found.set(id, found.get(id)! + event.text);
    } else if (event.kind === "open") {
      const { local, attributes } = event;
      const id = attributes["id"] ?? (local === "a" ? attributes["name"] : undefined);
      const isFirst = id !== undefined && !found.has(id);
      if (isFirst) found.set(id, "");
      open.push(isFirst ? id : null);
    }
  }
  return new Map([...found].map(([id, words]) => [id, words.replace(/\s+/g, " ").trim()]));
}
