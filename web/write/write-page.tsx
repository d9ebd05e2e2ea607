import { useQuery } from "@tanstack/react-query";
import { PanelLeft } from "lucide-react";
import { Dialog } from "radix-ui";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { Link, Navigate, useParams, useSearchParams } from "react-router";
import { useStore } from "zustand";
import { chaptersOf } from "../api/chapters-of";
import type { ChapterListing } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { ColumnChoice } from "../parts/column-choice";
import { Waiting } from "../parts/notice";
import { useRoomFor } from "../parts/use-window";
import { ChapterEditor } from "./chapter-editor";
import type { EditorHandle } from "./text/use-editor";
import { ChapterList } from "./chapter-list";
import { PlacesList } from "./places/places-list";
import { usePagesShown } from "./pages/pages-shown";
import { ChapterSaver } from "./saving/chapter-saver";
import { openChapter, type OpenedChapter } from "./saving/open-chapter";
import { useLiveChapters } from "./saving/use-live-chapters";
import { SaveState } from "./saving/save-state";
import { TwoTexts } from "./saving/two-texts";
import { NotRead } from "../parts/not-read";

const columnChoices = [
  ["chapters", "Chapters"],
  ["places", "Places"],
] as const;

/** Where the book is written: the chapters on the left, the page of the open one with its margin beside them. */
export function WritePage() {
  const book = useBook();
  const { chapterId } = useParams();
  const [search] = useSearchParams();
  const [saver, setSaver] = useState<ChapterSaver | null>(null);
  const [column, setColumn] = useState<"chapters" | "places">("chapters");
  const editor = useRef<EditorHandle | null>(null);
  const { shown: pagesShown, show: showPages } = usePagesShown();
  const [besideText, setBesideText] = useState<HTMLElement | null>(null);
  const chapters = useQuery(chaptersOf(book.id));
  useLiveChapters(book.id, chapterId ?? null, saver);
  const hasColumns = useRoomFor("columns");
  const [isDrawerOpen, setDrawerOpen] = useState(false);
  useEffect(() => setDrawerOpen(false), [chapterId]);
  const first = chapters.data?.[0];
  if (!chapterId && first) return <Navigate to={`/books/${book.id}/write/${first.id}?${search}`} replace />;
  const contents = (
    <div className="flex h-full min-h-0 flex-col [&>nav]:min-h-0 [&>nav]:grow">
      <ColumnChoice
        value={column}
        choices={columnChoices}
        onChange={setColumn}
        className="border-r border-hairline bg-paper px-5 pt-2 pb-1"
      />
      {chapters.data && column === "places" ? (
        <PlacesList
          bookId={book.id}
          current={chapterId ?? null}
          goTo={(place) => {
            setDrawerOpen(false);
            return editor.current?.goTo(place) ?? false;
          }}
        />
      ) : chapters.data ? (
        <ChapterList
          bookId={book.id}
          chapters={chapters.data}
          current={chapterId ?? null}
          renameCurrent={(title) => editor.current?.rename(title)}
        />
      ) : chapters.error ? (
        <NotRead of={chapters} />
      ) : (
        <Waiting what="Reading the chapters" />
      )}
    </div>
  );
  const layout = !hasColumns
    ? pagesShown
      ? "grid-rows-2"
      : "grid-rows-1"
    : pagesShown
      ? "grid-cols-[12rem_minmax(0,1fr)_26.5rem]"
      : "grid-cols-[12rem_minmax(0,1fr)] xl:grid-cols-[15rem_minmax(0,1fr)]";
  return (
    <PageFrame
      book={book}
      before={
        !hasColumns && (
          <Drawer open={isDrawerOpen} onOpen={setDrawerOpen}>
            {contents}
          </Drawer>
        )
      }
      aside={
        saver && (
          <>
            <Button
              aria-pressed={pagesShown}
              onClick={() => showPages(!pagesShown)}
              className="aria-pressed:bg-blue-wash"
            >
              Pages
            </Button>
            <Link
              to={`/books/${book.id}/write/${chapterId}/versions`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Versions
            </Link>
          </>
        )
      }
      state={saver && <SaveState saver={saver} />}
    >
      <div className={`grid h-full ${layout}`}>
        {hasColumns && contents}
        <div data-scroll className="min-h-0 overflow-y-auto">
          {chapterId && (chapters.data || chapters.isPending) && (
            <OpenChapter
              key={chapterId}
              bookId={book.id}
              chapterId={chapterId}
              chapters={chapters.data}
              onSaver={setSaver}
              handle={(handle) => (editor.current = handle)}
              besideText={pagesShown ? besideText : null}
            />
          )}
          {!chapterId && chapters.data?.length === 0 && (
            <p className="m-8 border border-hairline bg-paper p-10 font-serif text-lg">
              The book has no chapter. Add one {hasColumns ? "on the left" : "under Chapters and places"}.
            </p>
          )}
        </div>
        {pagesShown && (
          <div
            ref={setBesideText}
            className={`min-h-0 border-hairline bg-desk ${hasColumns ? "border-l" : "border-t"}`}
          />
        )}
      </div>
    </PageFrame>
  );
}

/** Chapters and places where the window has no room for them beside the text. */
function Drawer({
  open,
  onOpen,
  children,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Trigger asChild>
        <Button kind="quiet" aria-label="Chapters and places" data-tip="Chapters and places">
          <PanelLeft aria-hidden size={18} />
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-y-0 left-0 z-50 flex w-72 max-w-[85vw] flex-col border-r border-ink bg-paper"
        >
          <div className="flex items-center justify-between border-b border-hairline px-5 py-1">
            <Dialog.Title className="text-sm text-faint">Chapters and places</Dialog.Title>
            <Dialog.Close asChild>
              <Button kind="quiet">Close</Button>
            </Dialog.Close>
          </div>
          <div className="min-h-0 grow">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function OpenChapter({
  bookId,
  chapterId,
  chapters,
  onSaver,
  handle,
  besideText,
}: {
  bookId: string;
  chapterId: string;
  /** Undefined while they are asked for, at the same time as the text. */
  chapters: ChapterListing[] | undefined;
  onSaver: (saver: ChapterSaver | null) => void;
  handle: (handle: EditorHandle | null) => void;
  /** Where the set pages are shown; null where they are not. */
  besideText: HTMLElement | null;
}) {
  const [generation, setGeneration] = useState(0);
  const opened = useQuery({
    queryKey: keys.openedChapter(bookId, chapterId, generation),
    queryFn: () => openChapter(bookId, chapterId),
    // An open text is never exchanged under the author's hands.
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  const again = (): void => setGeneration(generation + 1);
  if (opened.error) {
    return (
      <div className="m-8">
        <NotRead of={opened} />
      </div>
    );
  }
  if (!opened.data || !chapters) return <Waiting what="Opening the chapter" />;
  const position = chapters.findIndex((chapter) => chapter.id === chapterId);
  if (opened.data.kind === "conflict") {
    return (
      <TwoTexts
        bookId={bookId}
        mine={opened.data.mine}
        theirs={opened.data.theirs}
        position={position}
        onSettled={again}
      />
    );
  }
  return (
    <WrittenChapter
      key={generation}
      bookId={bookId}
      chapterId={chapterId}
      opened={opened.data}
      position={position}
      onSaver={onSaver}
      onReopen={again}
      handle={handle}
      besideText={besideText}
      chapterIds={chapters.map(({ id }) => id)}
    />
  );
}

function WrittenChapter({
  bookId,
  chapterId,
  opened,
  position,
  onSaver,
  onReopen,
  handle,
  besideText,
  chapterIds,
}: {
  bookId: string;
  chapterId: string;
  chapterIds: readonly string[];
  opened: Extract<OpenedChapter, { kind: "text" }>;
  position: number;
  onSaver: (saver: ChapterSaver | null) => void;
  onReopen: () => void;
  handle: (handle: EditorHandle | null) => void;
  besideText: HTMLElement | null;
}) {
  const stale = useStale();
  const saver = useMemo(
    () =>
      new ChapterSaver(bookId, chapterId, opened.revision, readChapter(opened.base), (changesLinks) => {
        void stale(changesLinks ? "text" : "words");
      }),
    [bookId, chapterId, opened, stale],
  );
  useEffect(() => {
    saver.open();
    onSaver(saver);
    return () => {
      onSaver(null);
      saver.close();
    };
  }, [saver, onSaver]);
  // Of all that the saver tells, this alone changes the page.
  const conflict = useStore(saver.status, (status) => (status.kind === "conflict" ? status : null));
  if (conflict) {
    return (
      <TwoTexts
        bookId={bookId}
        mine={conflict.mine}
        theirs={conflict.theirs}
        position={position}
        onSettled={onReopen}
      />
    );
  }
  return (
    <ChapterEditor
      bookId={bookId}
      chapterId={chapterId}
      document={opened.document}
      unsent={opened.unsent}
      saver={saver}
      handle={handle}
      besideText={besideText}
      chapterIds={chapterIds}
    />
  );
}
