import { useQuery } from "@tanstack/react-query";
import { nameDestination } from "@vennet/core/destination/destination";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { chooseMentions, type Mention } from "@vennet/core/manuscript/mentions";
import { useMemo, useState } from "react";
import { answerOf, api, type ChapterMentions } from "../../api/client";
import { keys } from "../../api/keys";
import { useStepDone } from "../../links/use-step-done";
import { useDestinationNames } from "../../destinations/known-destinations";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { Problem, Waiting } from "../../parts/notice";
import { ShowMore, useFirstOfLists } from "../../parts/show-more";
import { plural } from "../../parts/wording";
import { MentionRow } from "./mention-row";
import { NotRead } from "../../parts/not-read";

/** Gives every other mention of a linked phrase the same link: found, ticked, linked as one action. */
export function MentionsPanel({
  bookId,
  chapterId,
  use,
  settle,
  onDone,
}: {
  bookId: string;
  chapterId: string;
  use: LinkUse;
  /** Waits until what is being written is saved, since the server looks through saved text. */
  settle: () => Promise<void>;
  onDone: () => void;
}) {
  const names = useDestinationNames(bookId);
  const stepDone = useStepDone(bookId);
  const [phrase, setPhrase] = useState(use.text);
  const [wholeBook, setWholeBook] = useState(true);
  const [wholeWords, setWholeWords] = useState(true);
  const [matchCase, setMatchCase] = useState(false);
  const [skipHeadings, setSkipHeadings] = useState(true);
  const [linked, setLinked] = useState<"skip" | "retarget">("skip");
  const [firstOnly, setFirstOnly] = useState(false);
  /** Ticks that the author has set or taken by hand, by mention. */
  const [byHand, setByHand] = useState<Map<string, boolean>>(new Map());
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const found = useQuery({
    queryKey: keys.mentions(bookId, phrase, wholeBook, wholeWords, matchCase),
    queryFn: async () => {
      await settle();
      return answerOf(
        api.POST("/api/books/{bookId}/links/search", {
          params: { path: { bookId } },
          body: { phrase, wholeWords, matchCase, ...(wholeBook ? {} : { chapterId }) },
        }),
      );
    },
    enabled: phrase.trim() !== "",
    retry: false,
    staleTime: 0,
    gcTime: 0,
  });

  const chapters = useMemo(
    () => (found.data?.chapters ?? []).map((chapter) => withoutThis(chapter, use, chapterId)),
    [found.data, use, chapterId],
  );
  const ticked = useMemo(() => {
    const ticks = new Set<string>();
    for (const chapter of chapters) {
      const mentions = chapter.mentions as unknown as Mention[];
      const chosen = new Set(chooseMentions(mentions, { skipHeadings, linked, firstOnly }));
      for (const mention of mentions) {
        const key = keyOf(chapter, mention);
        if (byHand.get(key) ?? chosen.has(mention)) ticks.add(key);
      }
    }
    return ticks;
  }, [chapters, skipHeadings, linked, firstOnly, byHand]);
  const total = chapters.reduce((sum, { mentions }) => sum + mentions.length, 0);
  const first = useFirstOfLists(chapters.map(({ mentions }) => mentions));

  const link = async (): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      await settle();
      const links = chapters.flatMap((chapter) =>
        chapter.mentions
          .filter((mention) => ticked.has(keyOf(chapter, mention)))
          .map(({ from, to }) => ({
            chapterId: chapter.chapterId,
            revision: chapter.revision,
            from,
            to,
            destination: { ...use.destination },
          })),
      );
      const step = await answerOf(
        api.POST("/api/books/{bookId}/links", {
          params: { path: { bookId } },
          body: { kind: "mentions", of: phrase, description: use.description, links },
        }),
      );
      stepDone(step);
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  const check = (label: string, value: boolean, set: (value: boolean) => void) => (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-blue"
        checked={value}
        onChange={(event) => {
          set(event.target.checked);
          setByHand(new Map());
        }}
      />
      {label}
    </label>
  );
  const canLink = !busy && ticked.size > 0 && !found.isFetching;
  return (
    <form
      aria-label="Link every mention"
      onSubmit={(event) => {
        event.preventDefault();
        if (canLink) void link();
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
      className="mx-auto my-6 max-w-4xl bg-paper p-6 shadow-[0_0_0_1px_var(--hairline)]"
    >
      <h1 className="font-serif text-xl">Link every mention</h1>
      <p className="text-faint [overflow-wrap:anywhere]">
        Each one ticked will lead to {nameDestination(use.destination, names)}
      </p>
      <div className="mt-3 grid gap-x-8 gap-y-2 md:grid-cols-[1fr_auto_auto]">
        <Field
          autoFocus
          label="Words to look for"
          value={phrase}
          onChange={(event) => setPhrase(event.target.value)}
        />
        <div className="grid content-start gap-1">
          {check("In the whole book", wholeBook, setWholeBook)}
          {check("Whole words only", wholeWords, setWholeWords)}
          {check("Letter case has to match", matchCase, setMatchCase)}
        </div>
        <div className="grid content-start gap-1">
          {check("Leave out headings", skipHeadings, setSkipHeadings)}
          {check("Send those that are linked here too", linked === "retarget", (on) =>
            setLinked(on ? "retarget" : "skip"),
          )}
          {check("Only the first in each chapter", firstOnly, setFirstOnly)}
        </div>
      </div>
      {problem && <Problem>{problem}</Problem>}
      <NotRead of={found} />
      {found.isFetching && <Waiting what="Looking through the text" />}
      {!found.isFetching && found.data && total === 0 && (
        <p className="mt-4">The words stand nowhere else{wholeBook ? " in the book" : " in this chapter"}.</p>
      )}
      {!found.isFetching &&
        chapters.map(
          (chapter, i) =>
            first.ofEach[i]! > 0 && (
              <section key={chapter.chapterId} className="mt-4">
                <h2 className="flex items-baseline gap-3 border-b border-hairline">
                  <span className="font-serif font-semibold">{chapter.chapter}</span>
                  <span className="text-sm text-faint">
                    {chapter.mentions.filter((mention) => ticked.has(keyOf(chapter, mention))).length} of{" "}
                    {plural(chapter.mentions.length, "mention")}
                  </span>
                </h2>
                <ul>
                  {chapter.mentions.slice(0, first.ofEach[i]).map((mention) => {
                    const key = keyOf(chapter, mention);
                    return (
                      <MentionRow
                        key={key}
                        mention={mention}
                        ticked={ticked.has(key)}
                        onTick={(on) => setByHand(new Map(byHand).set(key, on))}
                      />
                    );
                  })}
                </ul>
              </section>
            ),
        )}
      {!found.isFetching && <ShowMore of={first} />}
      <div className="sticky bottom-0 mt-4 flex items-center gap-4 border-t border-hairline bg-paper py-3">
        <Button kind="main" type="submit" disabled={!canLink}>
          {busy ? "Linking …" : `Link ${plural(ticked.size, "mention")}`}
        </Button>
        <Button kind="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

/** The chapter's mentions without the one that the link itself covers. */
function withoutThis(chapter: ChapterMentions, use: LinkUse, chapterId: string): ChapterMentions {
  if (chapter.chapterId !== chapterId) return chapter;
  return { ...chapter, mentions: chapter.mentions.filter(({ link }) => link?.id !== use.id) };
}

function keyOf({ chapterId, revision }: ChapterMentions, { from }: { from: number }): string {
  return `${chapterId} ${revision} ${from}`;
}
