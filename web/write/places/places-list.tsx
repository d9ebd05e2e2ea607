import { useQuery } from "@tanstack/react-query";
import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { BookIndex } from "@vennet/core/manuscript/book-index";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answerOf, api, ApiError, type PlaceListing } from "../../api/client";
import { useStale } from "../../api/stale";
import { keys } from "../../api/keys";
import { useBookChanges } from "../../book-changes";
import { usePlaces } from "../../destinations/known-destinations";
import { useStepDone } from "../../links/use-step-done";
import { telling } from "../../frame/history";
import { Button } from "../../parts/button";
import { Problem, Waiting } from "../../parts/notice";
import { plural } from "../../parts/wording";
import { useSurroundingBook } from "../use-surrounding-book";
import { kindWords } from "../../destinations/known-place";
import { NotRead } from "../../parts/not-read";
import { PlaceRow } from "./place-row";

const isHeading = ({ kind }: PlaceListing): boolean => kind === "title" || kind === "heading";

/** What the list can show: which places, what that is called, and what is said where there are none. */
const shows = {
  all: {
    words: "Headings and anchors",
    has: (place: PlaceListing) => isHeading(place) || place.kind === "anchor",
    none: "No place yet.",
  },
  anchors: {
    words: "Anchors alone",
    has: ({ kind }: PlaceListing) => kind === "anchor",
    none: "No anchor yet. Put one at the cursor with Alt A.",
  },
  unused: {
    words: "Anchors that nothing leads to",
    has: ({ kind, uses }: PlaceListing) => kind === "anchor" && uses === 0,
    none: "A link leads to every anchor.",
  },
  rest: {
    words: "Notes, figures, tables, lists",
    has: (place: PlaceListing) => !isHeading(place) && place.kind !== "anchor",
    none: "No note, caption or signpost list yet.",
  },
};

/** Every place of the book that a link can lead to, in reading order, with what leads there. */
export function PlacesList({
  bookId,
  current,
  goTo,
}: {
  bookId: string;
  current: string | null;
  /** Goes to a place of the chapter that is open; false where it is not there. */
  goTo: (place: string) => boolean;
}) {
  const places = usePlaces(bookId);
  const navigate = useNavigate();
  const book = useSurroundingBook();
  const index = useMemo(() => book && new BookIndex(book.chapters, book.conventions, book), [book]);
  const [show, setShow] = useState<keyof typeof shows>("all");
  const [open, setOpen] = useState<string | null>(null);
  const all = places.data ?? [];
  const shown = all.filter(shows[show].has);
  const scroller = useRef<HTMLDivElement>(null);
  const openAt = open === null ? -1 : shown.findIndex(({ id }) => id === open);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 26,
    overscan: 12,
    getItemKey: (at) => `${shown[at]!.chapterId} ${shown[at]!.id}`,
    // What is being changed stays, however far it is scrolled away.
    rangeExtractor: (range) => [
      ...new Set([...defaultRangeExtractor(range), ...(openAt === -1 ? [] : [openAt])]),
    ],
  });
  const currentAt = shown.findIndex(({ chapterId }) => chapterId === current);
  const { range, scrollToIndex } = virtual;
  const isBegun = useRef(false);
  useEffect(() => {
    if (currentAt === -1) return;
    const isSeen = range !== null && currentAt >= range.startIndex && currentAt <= range.endIndex;
    // Who went to a place that is listed here finds the list as it was.
    if (!isBegun.current || !isSeen) scrollToIndex(currentAt, { align: "start" });
    isBegun.current = true;
    // Once for a chapter that is opened: who scrolls on stays there while places come and go.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [current, show, places.isPending]);
  const visit = (place: PlaceListing): void => {
    if (place.chapterId === current && goTo(place.id)) return;
    void navigate(`/books/${bookId}/write/${place.chapterId}?place=${place.id}`);
  };
  return (
    <nav aria-label="Places" className="flex h-full flex-col border-r border-hairline bg-paper">
      <div className="px-4 pb-2">
        <select
          aria-label="Which places"
          value={show}
          onChange={(event) => setShow(event.target.value as typeof show)}
          className="min-h-7 w-full border border-hairline bg-paper px-1 text-sm"
        >
          {Object.entries(shows).map(([one, { words }]) => (
            <option key={one} value={one}>
              {words}
            </option>
          ))}
        </select>
        <p aria-hidden className="flex justify-end gap-2 pt-1 text-sm text-faint">
          <span title="Of the last PDF">page</span>
          <span title="How many links lead there">links</span>
        </p>
      </div>
      <NotRead of={places} />
      {places.isPending && <Waiting what="Reading the places" />}
      {places.data && shown.length === 0 && <p className="px-4 py-2 text-faint">{shows[show].none}</p>}
      <div ref={scroller} className="min-h-0 grow overflow-y-auto pb-4">
        <ol className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index: at, start, key }) => {
            const place = shown[at]!;
            const indexed = index?.places.get(place.id);
            return (
              <li
                key={key}
                ref={virtual.measureElement}
                data-index={at}
                aria-setsize={shown.length}
                aria-posinset={at + 1}
                className={`absolute inset-x-0 ${place.chapterId === current ? "" : "text-faint"}`}
                style={{ transform: `translateY(${start}px)` }}
              >
                <PlaceRow
                  place={place}
                  number={place.kind === "anchor" || !indexed ? null : index!.labelOf(indexed)}
                  isOpen={open === place.id}
                  onVisit={() => visit(place)}
                  onChange={() => setOpen(open === place.id ? null : place.id)}
                />
                {open === place.id && (
                  <AnchorActions
                    bookId={bookId}
                    anchor={place}
                    others={all.filter(({ id }) => id !== place.id)}
                    onDone={() => setOpen(null)}
                  />
                )}
              </li>
            );
          })}
        </ol>
      </div>
    </nav>
  );
}

/** Renames an anchor, merges it with another place, or takes it out; its links are never forgotten. */
function AnchorActions({
  bookId,
  anchor,
  others,
  onDone,
}: {
  bookId: string;
  anchor: PlaceListing;
  others: PlaceListing[];
  onDone: () => void;
}) {
  const stale = useStale();
  const stepDone = useStepDone(bookId);
  const [name, setName] = useState(anchor.text);
  const [to, setTo] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const destination = `#${anchor.id}`;
  const leading = useQuery({
    queryKey: keys.ledger(bookId, { destination }),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/links", { params: { path: { bookId }, query: { destination } } }),
      ),
    enabled: anchor.uses > 0,
  });
  const params = { path: { bookId, placeId: anchor.id } };
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    setProblem(null);
    try {
      await work();
      onDone();
    } catch (error) {
      setProblem((error as ApiError).message);
    }
  };
  const rename = (): void =>
    void attempt(async () => {
      const give = async (to: string): Promise<void> => {
        await answerOf(api.PATCH("/api/books/{bookId}/places/{placeId}", { params, body: { name: to } }));
        await stale("places");
        useBookChanges.getState().tell([anchor.chapterId]);
      };
      await telling(give(name), (made) => ({
        bookId,
        message: `The anchor “${anchor.text}” is called “${name}” now.`,
        undo: () => made.then(() => give(anchor.text)),
        redo: () => give(name),
      }));
    });
  const remove = (): void =>
    void attempt(async () =>
      stepDone(
        await answerOf(
          api.POST("/api/books/{bookId}/places/{placeId}/remove", { params, body: to === "" ? {} : { to } }),
        ),
      ),
    );
  return (
    <div
      className="grid gap-2 border-y border-hairline px-4 py-2 font-sans text-sm text-ink"
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <label className="grid gap-0.5">
        <span className="text-faint">Name</span>
        <span className="flex gap-2">
          <input
            autoFocus
            value={name}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => event.key === "Enter" && rename()}
            className="w-full min-w-0 border-b border-edge bg-transparent"
          />
          <Button kind="quiet" className="!text-sm" onClick={rename}>
            Rename
          </Button>
        </span>
      </label>
      {anchor.uses > 0 && (
        <ul className="max-h-32 overflow-y-auto border-l border-hairline pl-2">
          {leading.data?.rows.map(({ linkId, text, chapter }) => (
            <li key={linkId} className="[overflow-wrap:anywhere]">
              <span className="font-serif">{text}</span> <span className="text-faint">{chapter}</span>
            </li>
          ))}
        </ul>
      )}
      <label className="grid gap-0.5">
        <span className="text-faint">
          {anchor.uses > 0
            ? `Where its ${plural(anchor.uses, "link leads", "links lead")} then`
            : "Nothing leads here"}
        </span>
        {anchor.uses > 0 && (
          <select
            value={to}
            onChange={(event) => setTo(event.target.value)}
            className="min-h-7 w-full border border-hairline bg-paper"
          >
            <option value="">choose a place …</option>
            <option value="nowhere">nowhere: they will be told as broken</option>
            {others.map((place) => (
              <option key={place.id} value={place.id}>
                {place.text || kindWords[place.kind]} ({place.chapter})
              </option>
            ))}
          </select>
        )}
      </label>
      {problem && <Problem>{problem}</Problem>}
      <span className="flex gap-3">
        <Button kind="quiet" className="-ml-1 !text-sm" onClick={remove}>
          Delete anchor
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={onDone}>
          Cancel
        </Button>
      </span>
    </div>
  );
}
