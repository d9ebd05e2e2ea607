import {
  chapterTitle,
  readChapter,
  withTitle,
  writeChapter,
  type ChapterJson,
} from "@vennet/core/manuscript/chapter";
import { DOMSerializer } from "prosemirror-model";
import { schema } from "@vennet/core/manuscript/schema";
import { useEffect, useRef, useState } from "react";
import { answerOf, api, type Chapter } from "../../api/client";
import { Button } from "../../parts/button";
import { Problem } from "../../parts/notice";
import { dropDraft } from "./drafts";

type Json = Record<string, unknown>;

/** Both texts of a chapter that was changed in two places, side by side, for the author to choose. */
export function TwoTexts({
  bookId,
  mine,
  theirs,
  position,
  onSettled,
}: {
  bookId: string;
  mine: ChapterJson;
  theirs: Chapter;
  position: number;
  onSettled: () => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const settle = async (work: () => Promise<unknown>): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      await dropDraft(theirs.id);
      onSettled();
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  const keepMine = (): Promise<unknown> =>
    answerOf(
      api.PUT("/api/books/{bookId}/chapters/{chapterId}", {
        params: { path: { bookId, chapterId: theirs.id } },
        body: { revision: theirs.revision, document: mine as unknown as Json },
      }),
    );
  // What nobody goes on with is kept among the chapter's versions.
  const setMineAside = (): Promise<unknown> =>
    answerOf(
      api.POST("/api/books/{bookId}/chapters/{chapterId}/versions", {
        params: { path: { bookId, chapterId: theirs.id } },
        body: { name: "Written in this browser, set aside", document: mine as unknown as Json },
      }),
    );
  const keepBoth = (): Promise<unknown> => {
    const doc = readChapter(mine);
    const title = `${chapterTitle(doc)} (this browser’s text)`;
    return answerOf(
      api.POST("/api/books/{bookId}/chapters", {
        params: { path: { bookId } },
        body: {
          title,
          position: position + 1,
          document: writeChapter(withTitle(doc, title)) as unknown as Json,
        },
      }),
    );
  };
  return (
    <div className="mx-auto max-w-6xl p-6">
      <Problem>
        This chapter was changed somewhere else while you wrote here. Nothing is lost: both texts stand below.
        Choose the one to go on with, or keep both.
      </Problem>
      {problem && <Problem>{problem}</Problem>}
      <div className="mt-4 grid gap-4 md:grid-cols-2">
        <Text title="Written in this browser" document={mine}>
          <Button kind="main" disabled={busy} onClick={() => void settle(keepMine)}>
            Go on with this text
          </Button>
        </Text>
        <Text title="Saved from elsewhere" document={theirs.document as unknown as ChapterJson}>
          <Button kind="main" disabled={busy} onClick={() => void settle(setMineAside)}>
            Go on with this text
          </Button>
        </Text>
      </div>
      <Button className="mt-4" disabled={busy} onClick={() => void settle(keepBoth)}>
        Keep both: make the left one a chapter of its own
      </Button>
    </div>
  );
}

function Text({
  title,
  document: json,
  children,
}: {
  title: string;
  document: ChapterJson;
  children: React.ReactNode;
}) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const content = DOMSerializer.fromSchema(schema).serializeFragment(readChapter(json).content);
    place.current!.replaceChildren(content);
  }, [json]);
  return (
    <section aria-label={title} className="border border-hairline bg-paper">
      <div className="flex items-center justify-between gap-3 border-b border-hairline px-4 py-2">
        <h2 className="font-semibold">{title}</h2>
        {children}
      </div>
      <div
        ref={place}
        className="manuscript max-h-[60vh] overflow-y-auto p-5"
        tabIndex={0}
        role="region"
        aria-label={`${title}: text`}
      />
    </section>
  );
}
