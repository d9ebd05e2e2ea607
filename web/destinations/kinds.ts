import { behindPath } from "@vennet/core/destination/kinds/file";
import type { Destination, DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { isReservedName } from "@vennet/core/reach/address-policy";
import { FileText, Globe, Mail, MapPin, Phone, type LucideIcon } from "lucide-react";
import type { StandIns } from "../api/stand-ins";

/** How a destination is opened. */
export interface Way {
  words: string;
  /** What a browser opens; null where there is nothing to open, or until it is known who answers. */
  href: string | null;
}

interface KindOnScreen<K extends DestinationKind> {
  /** Its shape and its word, so that it is never told by colour alone. */
  icon: LucideIcon;
  word: string;
  /** Words of a link, for showing its look. */
  sample: string;
  /** The way to such a destination; a name kept for examples is answered for by the stand-ins. */
  way: (
    destination: Extract<Destination, { kind: K }>,
    bookId: string,
    standIns: StandIns | null | undefined,
  ) => Way;
}

/** How each kind of destination is shown. */
export const kinds: { readonly [K in DestinationKind]: KindOnScreen<K> } = {
  web: {
    icon: Globe,
    word: "Web",
    sample: "the tables of the Tide Office",
    way: ({ address }, _, standIns) => wayToWeb(address, standIns),
  },
  email: {
    icon: Mail,
    word: "Email",
    sample: "a letter to the wardens",
    way: ({ address }, _, standIns) =>
      standIns
        ? {
            words: "The stand-in mail opens with the message filled in. Nothing is sent.",
            href: standIns.mail(address),
          }
        : {
            words: "Your mail program opens with the message filled in.",
            href: standIns === undefined ? null : address,
          },
  },
  file: {
    icon: FileText,
    word: "File",
    sample: "the plan of the refuge box",
    way: (destination, bookId, standIns) => {
      if ("share" in destination) return wayToWeb(destination.share, standIns);
      if ("file" in destination)
        return {
          words: "A companion file.",
          href: `/api/books/${bookId}/files/${destination.file}${behindPath(destination.at)}`,
        };
      return { words: "This file was not brought along, so there is nothing to open.", href: null };
    },
  },
  place: {
    icon: MapPin,
    word: "In this book",
    sample: "what to do if the water turns",
    way: () => ({ words: "A place in this book.", href: null }),
  },
  telephone: {
    icon: Phone,
    word: "Telephone",
    sample: "the coastguard’s number",
    way: ({ address }) => ({ words: "Your device calls the number, if it can.", href: address }),
  },
};

/** The way to a destination. */
export function wayTo(bookId: string, destination: Destination, standIns: StandIns | null | undefined): Way {
  return kinds[destination.kind].way(destination as never, bookId, standIns);
}

function wayToWeb(address: string, standIns: StandIns | null | undefined): Way {
  const words = "This leaves the book.";
  if (standIns === undefined && isReservedName(new URL(address).hostname)) return { words, href: null };
  const standIn = standIns?.web(address) ?? null;
  return {
    words: `${words}${standIn ? " The name is kept for examples, so the stand-in web answers for it." : ""}`,
    href: standIn ?? address,
  };
}
