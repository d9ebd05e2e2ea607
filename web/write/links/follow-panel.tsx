import type { Destination } from "@vennet/core/destination/destination";
import { useStandIns } from "../../api/stand-ins";
import { Button } from "../../parts/button";

/** Shows the full address before anything outside the book is opened, and asks. */
export function FollowPanel({
  bookId,
  destination,
  onGoTo,
  onDone,
}: {
  bookId: string;
  destination: Destination;
  /** Goes to a place in the book. */
  onGoTo: (place: string) => void;
  onDone: () => void;
}) {
  const standIns = useStandIns();
  const way = wayTo(bookId, destination, standIns);
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      <p>{way.words}</p>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        {way.href !== null && (
          <a
            autoFocus
            href={way.href}
            target="_blank"
            rel="noreferrer noopener"
            onClick={onDone}
            className="border border-blue bg-blue px-2 py-0.5 text-paper"
          >
            Open in a new tab
          </a>
        )}
        {destination.kind === "place" && (
          <Button autoFocus kind="main" onClick={() => onGoTo(destination.target)}>
            Go there
          </Button>
        )}
        <Button kind="quiet" onClick={onDone}>
          Stay here
        </Button>
      </div>
    </div>
  );
}

function wayTo(
  bookId: string,
  destination: Destination,
  standIns: ReturnType<typeof useStandIns>,
): { words: string; href: string | null } {
  const toWeb = (address: string): { words: string; href: string } => {
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
