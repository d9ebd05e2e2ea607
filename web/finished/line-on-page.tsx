import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { ShelfPlace } from "@vennet/core/destination/read-typed";
import type { CSSProperties } from "react";
import { Button } from "../parts/button";
import { LinkLine, type TakenLine } from "../write/links/link-line";

/** How wide the link line is where there is room, in CSS px. */
export const lineWidth = 544;

/** The link line over a page, with the way to point at a place instead. */
export function LineOnPage({
  bookId,
  link,
  style,
  onTake,
  onBringFile,
  onShelf,
  onLeave,
  onPoint,
}: {
  bookId: string;
  /** What it is for; a new link has no destination yet. */
  link: { destination: Destination | null; words: string; description: string | null };
  /** Where on the page it stands. */
  style: CSSProperties;
  onTake: (taken: TakenLine) => void;
  /** Brings a file in; left out where none can travel with the file. */
  onBringFile?: (file: File) => Promise<Destination>;
  /** Takes a file of another publication along; left out where none can travel with the file. */
  onShelf?: (place: ShelfPlace) => Promise<Destination>;
  onLeave: () => void;
  onPoint: () => void;
}) {
  return (
    <div data-over className="absolute z-30 w-[34rem] max-w-[calc(100vw-3rem)]" style={style}>
      <LinkLine
        bookId={bookId}
        {...link}
        wordsLabel={null}
        onTake={onTake}
        {...(onBringFile ? { onBringFile } : {})}
        {...(onShelf ? { onShelf } : {})}
        onLeave={onLeave}
      />
      <div className="flex justify-end border-b-2 border-blue bg-paper px-3 pb-1">
        <Button
          kind="quiet"
          className="!text-sm"
          // Before the line is left for it, which closes the line.
          onPointerDown={(event) => event.preventDefault()}
          onClick={onPoint}
        >
          Point at the place in the file
        </Button>
      </div>
    </div>
  );
}
