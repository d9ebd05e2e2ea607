import { useQuery } from "@tanstack/react-query";
import { recognise } from "@vennet/core/destination/recognise";
import { writeDestination } from "@vennet/core/destination/destination";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { ShowMore, useFirstOfLists } from "../parts/show-more";
import { WordsAround } from "../parts/words-around";
import { plural } from "../parts/wording";
import { LinksFrame } from "./links-frame";
import { useStepDone } from "./use-step-done";
import { NotRead } from "../parts/not-read";

/** Addresses that stand in the text of a manuscript and are no links: found over the whole book, and linked as one action. */
export function BareAddressesPage() {
  const book = useBook();
  const stepDone = useStepDone(book.id);
  /** Those that stay as they are, by where they stand. */
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const found = useQuery({
    queryKey: keys.bareAddresses(book.id),
    queryFn: () =>
      answerOf(
        api.POST("/api/books/{bookId}/links/search", {
          params: { path: { bookId: book.id } },
          body: { addresses: true, wholeWords: true, matchCase: false },
        }),
      ),
    staleTime: 0,
    gcTime: 0,
  });
  const chapters = useMemo(
    () =>
      (found.data?.chapters ?? []).map(({ chapterId, chapter, revision, mentions }) => ({
        chapterId,
        chapter,
        addresses: mentions.map((mention) => ({
          ...mention,
          key: `${chapterId} ${revision} ${mention.from}`,
          revision,
          destination: recognise(mention.text).destination,
        })),
      })),
    [found.data],
  );
  const first = useFirstOfLists(chapters.map(({ addresses }) => addresses));
  const all = chapters.flatMap(({ addresses }) => addresses.map(({ key }) => key));
  const ticked = all.filter((key) => !unticked.has(key));
  const tick = (which: readonly string[], on: boolean): void => {
    const next = new Set(unticked);
    for (const key of which) {
      if (on) next.delete(key);
      else next.add(key);
    }
    setUnticked(next);
  };

  const link = async (): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      const links = chapters.flatMap(({ chapterId, addresses }) =>
        addresses
          .filter(({ key }) => !unticked.has(key))
          .map(({ revision, from, to, destination }) => ({
            chapterId,
            revision,
            from,
            to,
            destination: { ...destination },
          })),
      );
      stepDone(
        await answerOf(
          api.POST("/api/books/{bookId}/links", {
            params: { path: { bookId: book.id } },
            body: { kind: "addresses", links },
          }),
        ),
      );
    } catch (error) {
      setProblem((error as Error).message);
      // The text may have been changed meanwhile.
      await found.refetch();
    }
    setBusy(false);
  };
  return (
    <LinksFrame>
      <div className="h-full overflow-y-auto p-5">
        <div className="mx-auto max-w-5xl">
          <h1 className="font-serif text-2xl">Addresses without a link</h1>
          <p className="text-faint">
            Readers would have to type these. What stands in a listing or as code is left out, and so is an
            address whose link you removed.
          </p>
          {problem && <Problem>{problem}</Problem>}
          <NotRead of={found} />
          {found.isPending && <Waiting what="Looking through the text" />}
          {found.data && all.length === 0 && (
            <p role="status" className="mt-5">
              Every address that stands in the text is a link.
            </p>
          )}
          {all.length > 0 && (
            <>
              <label className="mt-5 flex items-center gap-3 text-sm text-faint">
                <input
                  type="checkbox"
                  className="size-4 accent-blue"
                  checked={ticked.length === all.length}
                  onChange={(event) => tick(all, event.target.checked)}
                />
                All of them
              </label>
              {chapters
                .map((one, i) => ({ ...one, addresses: one.addresses.slice(0, first.ofEach[i]) }))
                .filter(({ addresses }) => addresses.length > 0)
                .map(({ chapterId, chapter, addresses }) => (
                  <section key={chapterId} className="mt-3 border border-hairline bg-paper px-4 py-2">
                    <h2 className="pb-1 font-serif font-semibold [overflow-wrap:anywhere]">
                      <Link to={`/books/${book.id}/write/${chapterId}`} className="text-blue underline">
                        {chapter}
                      </Link>
                    </h2>
                    <ul>
                      {addresses.map(({ key, before, text, after, destination }) => {
                        const leads = writeDestination(destination);
                        return (
                          <li key={key} className="border-t border-hairline">
                            <label className="flex items-baseline gap-3 py-1 hover:bg-blue-wash">
                              <input
                                type="checkbox"
                                className="size-4 shrink-0 translate-y-0.5 accent-blue"
                                checked={!unticked.has(key)}
                                onChange={(event) => tick([key], event.target.checked)}
                              />
                              <span className="min-w-0 [overflow-wrap:anywhere]">
                                <WordsAround before={before} after={after}>
                                  <span className="font-mono text-[0.85rem]">{text}</span>
                                </WordsAround>
                                {leads !== text && (
                                  <span className="block text-sm text-faint">will lead to {leads}</span>
                                )}
                              </span>
                            </label>
                          </li>
                        );
                      })}
                    </ul>
                  </section>
                ))}
              <ShowMore of={first} />
              <Button
                kind="main"
                className="mt-4"
                disabled={busy || found.isFetching || ticked.length === 0}
                onClick={() => void link()}
              >
                {busy ? "Linking …" : `Link ${plural(ticked.length, "address", "addresses")}`}
              </Button>
            </>
          )}
        </div>
      </div>
    </LinksFrame>
  );
}
