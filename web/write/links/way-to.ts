import type { Destination } from "@vennet/core/destination/destination";
import type { StandIns } from "../../api/stand-ins";

/** How a destination is opened. */
export interface Way {
  words: string;
  /** What a browser opens; null where there is nothing to open. */
  href: string | null;
}

/** The way to a destination; a name kept for examples is answered for by the stand-ins. */
export function wayTo(bookId: string, destination: Destination, standIns: StandIns | null): Way {
  const toWeb = (address: string): Way => {
    const standIn = standIns?.web(address) ?? null;
    return {
      words: `This leaves the book.${standIn ? " The name is kept for examples, so the stand-in web answers for it." : ""}`,
      href: standIn ?? address,
    };
  };
  switch (destination.kind) {
    case "web":
      return toWeb(destination.address);
    case "email":
      return standIns
        ? {
            words: "The stand-in mail opens with the message filled in. Nothing is sent.",
            href: standIns.mail(destination.address),
          }
        : { words: "Your mail program opens with the message filled in.", href: destination.address };
    case "place":
      return { words: "A place in this book.", href: null };
    case "file":
      if ("share" in destination) return toWeb(destination.share);
      if ("file" in destination)
        return { words: "A companion file.", href: `/api/books/${bookId}/files/${destination.file}` };
      return { words: "This file was not brought along, so there is nothing to open.", href: null };
  }
}
