import { parseUrl } from "@vennet/core/destination/parse-url";
import { readHref, sameDestination } from "@vennet/core/destination/destination";
import { webDestination } from "@vennet/core/destination/kinds/web";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { LinkEffect } from "@vennet/core/manuscript/change-links";
import type { LinkChange } from "@vennet/core/manuscript/edit-links";
import type { PublicationLink } from "@vennet/core/publication/linked-part";
import { Problem } from "../errors/problem.ts";
import type { LinkEdit } from "./links.dto.ts";

/**
 * What an edit makes of each link that it is for.
 * @throws Problem where the edit does not say what it has to
 */
export function effectOf(edit: LinkEdit): (use: PublicationLink) => LinkEffect {
  const effect = effectOnWords(edit);
  // A cross-reference has nothing but its place: it can follow another, and has no words to keep.
  const canFollow =
    (edit.kind === "retarget" || edit.kind === "change") && edit.destination?.kind === "place";
  return (use) => (use.on === "reference" && !canFollow ? null : effect(use));
}

function effectOnWords(edit: LinkEdit): (use: PublicationLink) => LinkEffect {
  switch (edit.kind) {
    case "remove":
      return () => "remove";
    case "describe": {
      const description = edit.description?.trim() || null;
      return (use) => (use.description === description ? null : { description });
    }
    case "words": {
      const { text } = edit;
      if (text === undefined) throw new Problem(400, "no-words", "A link needs words to stand on.", "text");
      return (use) => (use.text === text ? null : { text });
    }
    case "retarget": {
      const { destination } = edit;
      if (!destination)
        throw new Problem(400, "no-destination", "Say where the links lead then.", "destination");
      return (use) => (sameDestination(use.destination, destination) ? null : { destination });
    }
    case "change":
      return (use) => changeOf(edit, use);
    case "host": {
      const [from, to] = [readHost(edit.from, "from"), readHost(edit.to, "to")];
      return (use) => onOtherHost(use.destination, from, to);
    }
    case "base": {
      const base = readBase(edit.base ?? "");
      return (use) => startingFrom(use.destination, base);
    }
  }
}

/** What of a change of words, destination and description is new to a link, as one. */
function changeOf({ destination, text, description }: LinkEdit, use: PublicationLink): LinkEffect {
  const change: LinkChange = {
    ...(destination && !sameDestination(use.destination, destination) ? { destination } : {}),
    ...(text !== undefined && text !== use.text ? { text } : {}),
    ...(description !== undefined && (description?.trim() || null) !== use.description
      ? { description: description?.trim() || null }
      : {}),
  };
  return Object.keys(change).length > 0 ? change : null;
}

function readBase(given: string): string {
  const url = URL.canParse(given.trim()) ? new URL(given.trim()) : null;
  if (url && /^https?:$/.test(url.protocol)) return url.href;
  throw new Problem(
    400,
    "base",
    `“${given}” is no web address from which links can start. It begins with http:// or https://.`,
    "base",
  );
}

/** A link to a file that was not brought along, seen from a web address. */
function startingFrom(destination: Destination, base: string): LinkEffect {
  if (destination.kind !== "file" || !("path" in destination)) return null;
  const next = readHref(destination.path, base);
  return sameDestination(destination, next) ? null : { destination: next };
}

function readHost(given: string | undefined, field: string): string {
  const text = (given ?? "")
    .trim()
    .replace(/^https?:\/\//i, "")
    .replace(/\/.*$/s, "");
  if (text === "" || parseUrl(`https://${text}`) === null)
    throw new Problem(400, "host", `“${given ?? ""}” is not a host, such as tides.hesterley.example.`, field);
  return new URL(`https://${text}`).host;
}

function onOtherHost(destination: Destination, from: string, to: string): LinkEffect {
  if (destination.kind !== "web") return null;
  const url = new URL(destination.address);
  if (url.host !== from) return null;
  url.host = to;
  const next = webDestination(url.href);
  return sameDestination(destination, next) ? null : { destination: next };
}
