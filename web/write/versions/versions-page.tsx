import { useQuery } from "@tanstack/react-query";
import { readChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";
import { compareVersions } from "@vennet/core/manuscript/versions";
import { useMemo, useState, type FormEvent } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answerOf, api, type VersionListing } from "../../api/client";
import { useStale } from "../../api/stale";
import { keys } from "../../api/keys";
import { useBookChanges } from "../../book-changes";
import { offerUndo } from "../../frame/undo-bar";
import { useBook } from "../../book-page";
import { PageFrame } from "../../frame/page-frame";
import { useDestinationNames } from "../../destinations/known-destinations";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { Problem, Waiting } from "../../parts/notice";
import { plural, shownDate } from "../../parts/wording";
import { LinkDifferences } from "./link-differences";
import { TextDifferences } from "./text-differences";
import { NotRead } from "../../parts/not-read";

/** The key of the chapter as it is now, which is no version. */
const now = "now";

/** The versions of a chapter: two of them compared, with the links that differ listed by themselves. */
export function VersionsPage() {
  const book = useBook();
  const { chapterId } = useParams() as { chapterId: string };
  const stale = useStale();
  const navigate = useNavigate();
  const [picked, setPicked] = useState<{ before: string | null; after: string }>({
    before: null,
    after: now,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const path = { bookId: book.id, chapterId };
  const versions = useQuery({
    queryKey: keys.versions(book.id, chapterId),
    queryFn: () =>
      answerOf(api.GET("/api/books/{bookId}/chapters/{chapterId}/versions", { params: { path } })),
    staleTime: 0,
  });
  const list = versions.data ?? [];
  const before = picked.before ?? list[1]?.id ?? null;
  const name = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = event.currentTarget;
    setProblem(null);
    try {
      const given = String(new FormData(form).get("name")).trim();
      await answerOf(
        api.POST("/api/books/{bookId}/chapters/{chapterId}/versions", {
          params: { path },
          body: { name: given },
        }),
      );
      form.reset();
      await stale("versions");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const restore = async (versionId: string): Promise<void> => {
    setProblem(null);
    const bringBack = async (id: string): Promise<number> => {
      const { revision } = await answerOf(
        api.POST("/api/books/{bookId}/chapters/{chapterId}/versions/{versionId}/restore", {
          params: { path: { ...path, versionId: id } },
        }),
      );
      useBookChanges.getState().tell([chapterId]);
      await stale("step");
      return revision;
    };
    try {
      const restored = await bringBack(versionId);
      offerUndo({
        bookId: book.id,
        message: "An earlier version is the text again.",
        undo: async () => {
          const kept = await answerOf(
            api.GET("/api/books/{bookId}/chapters/{chapterId}/versions", { params: { path } }),
          );
          // What it replaced was kept as the version before it.
          const replaced = kept.find(({ id, revision }) => id !== null && revision === restored - 1)?.id;
          if (typeof replaced !== "string")
            throw new Error("The text that it replaced is not kept any more.");
          await bringBack(replaced);
        },
        redo: () => bringBack(versionId),
      });
      await navigate(`/books/${book.id}/write/${chapterId}`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <PageFrame book={book}>
      <div className="grid h-full grid-rows-[auto_minmax(0,1fr)] md:grid-cols-[21rem_minmax(0,1fr)] md:grid-rows-1">
        <div className="max-h-72 overflow-y-auto border-r border-hairline bg-paper p-4 md:max-h-none">
          <Link
            to={`/books/${book.id}/write/${chapterId}`}
            className="text-faint underline decoration-edge underline-offset-4 hover:text-blue"
          >
            Back to the text
          </Link>
          <h1 className="mt-2 font-serif text-xl">Versions of “{list[0]?.title ?? "…"}”</h1>
          <p className="text-sm text-faint">
            One is kept every few minutes while you write, before every change of many links, and whenever you
            name one.
          </p>
          <form onSubmit={(event) => void name(event)} className="mt-3 flex items-end gap-2">
            <Field name="name" required maxLength={200} label="Save it as it is now, as" className="grow" />
            <Button type="submit">Save</Button>
          </form>
          {problem && <Problem>{problem}</Problem>}
          <NotRead of={versions} />
          {versions.isPending && <Waiting what="Reading the versions" />}
          <table className="mt-4 w-full text-left text-[0.9rem]">
            <caption className="sr-only">Which two versions are compared</caption>
            <thead className="text-sm text-faint">
              <tr>
                <th scope="col" className="w-12 font-normal">
                  From
                </th>
                <th scope="col" className="w-10 font-normal">
                  To
                </th>
                <th scope="col" className="font-normal">
                  Version
                </th>
              </tr>
            </thead>
            <tbody>
              {list.map((version) => (
                <VersionRow
                  key={version.id ?? now}
                  version={version}
                  isBefore={version.id !== null && version.id === before}
                  isAfter={(version.id ?? now) === picked.after}
                  onBefore={() => setPicked({ ...picked, before: version.id })}
                  onAfter={() => setPicked({ ...picked, after: version.id ?? now })}
                  onRestore={() => version.id && void restore(version.id)}
                />
              ))}
            </tbody>
          </table>
        </div>
        <div tabIndex={0} role="region" aria-label="Comparison" className="min-h-0 overflow-y-auto p-5">
          {before ? (
            <Comparison path={path} before={before} after={picked.after} />
          ) : (
            versions.data && (
              <p className="border border-hairline bg-paper p-8">
                There is no earlier version yet. The first is kept when the text changes.
              </p>
            )
          )}
        </div>
      </div>
    </PageFrame>
  );
}

function VersionRow({
  version,
  isBefore,
  isAfter,
  onBefore,
  onAfter,
  onRestore,
}: {
  version: VersionListing;
  isBefore: boolean;
  isAfter: boolean;
  onBefore: () => void;
  onAfter: () => void;
  onRestore: () => void;
}) {
  const words = version.id === null ? "As it is now" : (version.name ?? `Revision ${version.revision}`);
  return (
    <tr className="border-t border-hairline align-baseline">
      <td className="py-1.5">
        {version.id !== null && (
          <input
            type="radio"
            name="before"
            aria-label={`Compare from ${words}`}
            className="size-4 accent-blue"
            checked={isBefore}
            onChange={onBefore}
          />
        )}
      </td>
      <td>
        <input
          type="radio"
          name="after"
          aria-label={`Compare to ${words}`}
          className="size-4 accent-blue"
          checked={isAfter}
          onChange={onAfter}
        />
      </td>
      <td className="py-1.5">
        <span className={version.name || version.id === null ? "font-semibold" : ""}>{words}</span>
        <span className="block text-sm text-faint">
          {version.createdAt && `${shownDate(version.createdAt)}, `}
          {plural(version.words, "word")}, {plural(version.links, "link")}
        </span>
        {version.id !== null && (
          <Button kind="quiet" className="-ml-1 !text-sm" onClick={onRestore}>
            Bring back
          </Button>
        )}
      </td>
    </tr>
  );
}

function Comparison({
  path,
  before,
  after,
}: {
  path: { bookId: string; chapterId: string };
  before: string;
  after: string;
}) {
  const names = useDestinationNames(path.bookId);
  const older = useVersion(path, before);
  const newer = useVersion(path, after);
  const difference = useMemo(
    () =>
      older.data && newer.data ? compareVersions(readChapter(older.data), readChapter(newer.data)) : null,
    [older.data, newer.data],
  );
  if (older.error || newer.error) return <NotRead of={older.error ? older : newer} />;
  if (!difference) return <Waiting what="Comparing" />;
  return (
    <div className="mx-auto grid max-w-4xl gap-6">
      <LinkDifferences differences={difference.links} names={names} />
      <TextDifferences paragraphs={difference.paragraphs} />
    </div>
  );
}

function useVersion(path: { bookId: string; chapterId: string }, id: string) {
  return useQuery({
    queryKey: keys.version(path.bookId, path.chapterId, id),
    queryFn: async () => {
      const { document } =
        id === now
          ? await answerOf(api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path } }))
          : await answerOf(
              api.GET("/api/books/{bookId}/chapters/{chapterId}/versions/{versionId}", {
                params: { path: { ...path, versionId: id } },
              }),
            );
      return document as unknown as ChapterJson;
    },
    // A version never changes; the chapter does.
    staleTime: id === now ? 0 : Infinity,
  });
}
