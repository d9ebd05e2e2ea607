import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { shownDate } from "../parts/wording";
import { Arrival } from "./arrival";
import { BringIn } from "./bring-in";
import { DropTarget } from "./drop-target";
import type { DroppedFiles } from "./dropped-files";
import { NotRead } from "../parts/not-read";

/** Where a manuscript is brought into a book that exists already, with what came into it before. */
export function ImportPage() {
  const book = useBook();
  const navigate = useNavigate();
  const [dropped, setDropped] = useState<DroppedFiles | null>(null);
  return (
    <PageFrame book={book}>
      <DropTarget onDrop={setDropped}>
        <div className="h-full overflow-y-auto">
          <div className="mx-auto max-w-3xl px-6 py-6">
            <h1 className="font-serif text-3xl font-semibold">Bring in a manuscript</h1>
            <BringIn
              into={book.id}
              dropped={dropped}
              onClose={() => void navigate(`/books/${book.id}/write`)}
            />
            <Arrivals bookId={book.id} />
          </div>
        </div>
      </DropTarget>
    </PageFrame>
  );
}

/** The arrival proofs of what came into a book before, the last first. */
function Arrivals({ bookId }: { bookId: string }) {
  const arrivals = useQuery({
    queryKey: keys.arrivals(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/arrivals", { params: { path: { bookId } } })),
  });
  if (!arrivals.data?.length) return <NotRead of={arrivals} />;
  return (
    <section aria-labelledby="came-in-before" className="mt-10">
      <h2 id="came-in-before" className="font-serif text-xl font-semibold">
        What came in before
      </h2>
      <ul className="mt-2 grid gap-6">
        {arrivals.data.map((arrival) => (
          <li key={arrival.id} className="border border-hairline bg-paper p-5">
            <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
              <h3 className="font-semibold [overflow-wrap:anywhere]">{arrival.fileName}</h3>
              <span className="text-sm text-faint">{shownDate(arrival.createdAt)}</span>
              <a
                href={`/api/jobs/${arrival.id}/import/arrival.csv`}
                className="ml-auto text-sm underline decoration-edge underline-offset-4 hover:text-blue"
              >
                Every link as a table (CSV)
              </a>
            </div>
            <Arrival arrival={arrival} />
          </li>
        ))}
      </ul>
    </section>
  );
}
