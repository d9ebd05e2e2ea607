import { readHref } from "@vennet/core/destination/destination";
import { hasScheme } from "@vennet/core/proof/exported-folder";
import { Button } from "../parts/button";
import { FollowPanel } from "../write/links/follow-panel";

/** A link of an exported file that leads out of it. */
export interface OutwardLink {
  /** What a screen reader is told of it. */
  name: string;
  /** An address, or a path of the exported folder. */
  address: string;
}

/** Tells the whole address before anything outside the file is opened, as readers' programs do. */
export function AskedLink({
  bookId,
  link,
  beside,
  onDone,
}: {
  bookId: string;
  link: OutwardLink;
  /** The files that were exported along, by their paths. */
  beside: ReadonlyMap<string, Uint8Array>;
  onDone: () => void;
}) {
  const { address } = link;
  const isOutside = hasScheme(address);
  const file = isOutside ? undefined : beside.get(decodeURIComponent(address));
  return (
    <div>
      {link.name !== address && <p className="font-serif">{link.name}</p>}
      <p className="mt-1 font-mono text-[0.9rem] [overflow-wrap:anywhere]">{address}</p>
      {isOutside ? (
        <FollowPanel
          bookId={bookId}
          destination={readHref(address, null)}
          onGoTo={() => undefined}
          onDone={onDone}
        />
      ) : (
        <div className="mt-2 border-t border-hairline pt-2">
          <p>{file ? "A file that came along." : "No such file came along."}</p>
          <div className="mt-1 flex items-center gap-3">
            {file && (
              <Button autoFocus kind="main" onClick={() => save(address, file)}>
                Save a copy
              </Button>
            )}
            <Button kind="quiet" onClick={onDone}>
              Stay here
            </Button>
          </div>
        </div>
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
