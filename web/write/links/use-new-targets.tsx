import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { ShelfPlace, Spot } from "@vennet/core/destination/read-typed";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { useState, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { answerOf, api, sendForm, type StoredCompanions } from "../../api/client";
import { useStale } from "../../api/stale";
import { Button } from "../../parts/button";

/** What a link can lead to that is made in the same step. */
export interface NewTargets {
  /** Makes a companion page of that title. */
  makePage: (title: string) => Promise<Destination>;
  /** Brings in a file from the author's own disk. */
  bringFile: (file: File) => Promise<Destination>;
  /** Takes a file of another publication of the Shelf along, and leads to a place in it. */
  leadToShelf: (place: ShelfPlace) => Promise<Destination>;
  /** Puts an anchor at words of another chapter, or takes the place that stands there. */
  placeAtWords: (spot: Spot) => Promise<Destination>;
}

/** Makes what a link is to lead to, and offers to write a page that was made so. */
export function useNewTargets(
  bookId: string,
  tell: (problem: string) => void,
): { targets: NewTargets; madePage: ReactNode } {
  const stale = useStale();
  const navigate = useNavigate();
  const [made, setMade] = useState<{ id: string; title: string } | null>(null);

  const makePage = async (title: string): Promise<Destination> => {
    const page = await answerOf(
      api.POST("/api/books/{bookId}/chapters", {
        params: { path: { bookId } },
        body: { title, role: "companion" },
      }),
    );
    const top = readChapter(page.document).firstChild!;
    setMade({ id: page.id, title });
    void stale("chapters");
    return { kind: "place", target: top.attrs["id"] as string };
  };

  const bringFile = async (file: File): Promise<Destination> => {
    const form = new FormData();
    form.set("file", file);
    const { stored, refused } = await sendForm<StoredCompanions>(`/api/books/${bookId}/files`, form);
    if (!stored[0]) throw new Error(refused[0]?.message ?? "The file was not taken.");
    if (stored[0].warning) tell(stored[0].warning);
    void stale("files");
    return { kind: "file", file: stored[0].file.id };
  };

  const leadToShelf = async ({ book, place }: ShelfPlace): Promise<Destination> => {
    const { file, at } = await answerOf(
      api.POST("/api/books/{bookId}/shelf/places", {
        params: { path: { bookId } },
        body: { bookId: book, placeId: place },
      }),
    );
    void stale("files");
    return { kind: "file", file: file.id, ...(at === null ? {} : { at }) };
  };

  const placeAtWords = async ({ chapterId, revision, from, to, place }: Spot): Promise<Destination> => {
    if (place !== null) return { kind: "place", target: place };
    const { id } = await answerOf(
      api.POST("/api/books/{bookId}/places", {
        params: { path: { bookId } },
        body: { chapterId, revision: revision!, from, to },
      }),
    );
    void stale("text");
    return { kind: "place", target: id };
  };

  return {
    targets: { makePage, bringFile, leadToShelf, placeAtWords },
    madePage: made && (
      <div
        role="status"
        className="flex flex-wrap items-center gap-3 border-b border-hairline bg-blue-wash px-4 py-1.5"
      >
        <span>The page “{made.title}” is made and linked. It has no words yet.</span>
        <Button kind="main" onClick={() => void navigate(`/books/${bookId}/write/${made.id}`)}>
          Write it now
        </Button>
        <Button kind="quiet" onClick={() => setMade(null)}>
          Later
        </Button>
      </div>
    ),
  };
}
