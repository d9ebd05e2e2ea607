import { readHref } from "@vennet/core/destination/destination";
import { partsOfPath } from "@vennet/core/proof/companion-path";
import { hasScheme } from "@vennet/core/proof/exported-folder";
import { useState } from "react";
import { useStandIns } from "../api/stand-ins";
import { Button } from "../parts/button";
import { wayTo } from "../destinations/kinds";
import { StandInWindow } from "./stand-in-window";
import type { OutwardLink } from "./outward-link";

/** Tells the whole address before anything outside the file is opened, as readers' programs do. */
export function AskedLink({
  bookId,
  link,
  beside,
  takesFocus,
  onDone,
}: {
  bookId: string;
  link: OutwardLink;
  /** The files that were exported along, by their paths. */
  beside: ReadonlyMap<string, Uint8Array>;
  /** Whether who reads by keys is taken here. */
  takesFocus: boolean;
  onDone: () => void;
}) {
  const { address } = link;
  const standIns = useStandIns();
  const [opens, setOpens] = useState(false);
  const isOutside = hasScheme(address);
  const file = isOutside ? undefined : beside.get(partsOfPath(decodeURIComponent(address)).file);
  const way = isOutside
    ? wayTo(bookId, readHref(address, null), standIns)
    : { words: file ? "A file that came along." : "No such file came along.", href: null };
  return (
    <div>
      {link.name !== address && <p className="font-serif">{link.name}</p>}
      <p className="mt-1 font-mono text-[0.9rem] [overflow-wrap:anywhere]">{address}</p>
      <div className="mt-2 border-t border-hairline pt-2">
        <p>{way.words}</p>
        <div className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
          {(isOutside || file) && (
            <Button autoFocus={takesFocus} kind="main" onClick={() => setOpens(true)}>
              See what a reader gets
            </Button>
          )}
          {way.href !== null && (
            <a
              href={way.href}
              target="_blank"
              rel="noreferrer noopener"
              onClick={onDone}
              className="border border-edge px-2 py-0.5"
            >
              Open in a new tab
            </a>
          )}
          {file && <Button onClick={() => save(partsOfPath(address).file, file)}>Save a copy</Button>}
          <Button kind="quiet" onClick={onDone}>
            Cancel
          </Button>
        </div>
      </div>
      {opens && (
        <StandInWindow link={link} href={way.href} file={file ?? null} onClose={() => setOpens(false)} />
      )}
    </div>
  );
}

function save(path: string, bytes: Uint8Array): void {
  const address = URL.createObjectURL(new Blob([bytes as BlobPart]));
  const link = document.createElement("a");
  link.href = address;
  link.download = path.split("/").at(-1)!;
  link.click();
  URL.revokeObjectURL(address);
}
