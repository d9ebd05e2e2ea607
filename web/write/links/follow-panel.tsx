import { useQuery } from "@tanstack/react-query";
import { writeDestination } from "@vennet/core/destination/destination";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { isReservedName } from "@vennet/core/reach/address-policy";
import { answerOf, api } from "../../api/client";
import { Button } from "../../parts/button";

/** Shows the full address before anything outside the book is opened, and asks. */
export function FollowPanel({ use, onDone }: { use: LinkUse; onDone: () => void }) {
  const health = useQuery({ queryKey: ["health"], queryFn: () => answerOf(api.GET("/api/health")) });
  const { destination } = use;
  if (destination.kind !== "web" && destination.kind !== "email") {
    return (
      <div className="mt-2 border-t border-hairline pt-2">
        <p>This destination opens in the exported book only.</p>
        <Button kind="quiet" onClick={onDone}>
          Back
        </Button>
      </div>
    );
  }
  const address = writeDestination(destination);
  const url = destination.kind === "web" ? new URL(address) : null;
  const standIn = url && isReservedName(url.hostname) ? (health.data?.standInWeb ?? null) : null;
  const href = standIn && url ? `${standIn}/${url.host}${url.pathname}${url.search}` : address;
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      <p>
        This leaves the book.{" "}
        {standIn && "The name is kept for examples, so the stand-in web answers for it."}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        <a
          autoFocus
          href={href}
          target="_blank"
          rel="noreferrer noopener"
          onClick={onDone}
          className="border border-blue bg-blue px-2 py-0.5 text-paper"
        >
          Open in a new tab
        </a>
        <Button kind="quiet" onClick={onDone}>
          Stay here
        </Button>
      </div>
    </div>
  );
}
