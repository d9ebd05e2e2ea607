import { useQuery } from "@tanstack/react-query";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { matchCodes, unusedFiles, type CodeMatch, type MatchQuality } from "@vennet/core/manuscript/codes";
import { Check, CircleDashed, CircleQuestionMark, Hash, Lock, LockOpen } from "lucide-react";
import { useMemo, useState } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { useFiles, useSharedFiles, whoMayOpen } from "../destinations/known-destinations";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { EmptyPage } from "../parts/empty-page";
import { Problem, Waiting } from "../parts/notice";
import { plural } from "../parts/wording";
import { LinksFrame } from "./links-frame";
import { own, searchCodes, useNoticedCodes } from "./use-noticed-codes";
import { useStepDone } from "./use-step-done";
import { useTold } from "../parts/not-read";

const qualities: Record<MatchQuality, { icon: typeof Check; words: string }> = {
  exact: { icon: Check, words: "The name is the code" },
  word: { icon: Check, words: "The name has the code" },
  number: { icon: Hash, words: "Only the number fits" },
  none: { icon: CircleDashed, words: "No file fits" },
};

interface Candidate {
  id: string;
  name: string;
  destination: Destination;
  /** Who may open it; null for a file that travels with the book. */
  mayOpen: { words: string; isClosed: boolean } | null;
}

/** Gives item codes in the text their files: a pattern made from examples, and a table to confirm. */
export function CodesPage() {
  const book = useBook();
  const stepDone = useStepDone(book.id);
  /** What the author gave; until then what was noticed. */
  const [given, setGiven] = useState<{ typed?: string; source?: string }>({});
  /** What the author has chosen by hand for a code: a file's id, or "" for none. */
  const [byHand, setByHand] = useState<Map<string, string>>(new Map());
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const files = useFiles(book.id);
  const shared = useSharedFiles(book.id);
  const sources = useMemo(
    () =>
      new Map([
        [own, (files.data ?? []).map(({ name }) => name)],
        ...foldersOf(shared.data ?? []).map(
          (folder) =>
            [
              `folder:${folder}`,
              (shared.data ?? []).filter((file) => file.folder === folder).map(({ name }) => name),
            ] as const,
        ),
      ]),
    [files.data, shared.data],
  );
  const noticed = useNoticedCodes(book.id, sources);
  const typed = given.typed ?? noticed?.examples.join(" ") ?? "";
  const source = given.source ?? noticed?.source ?? own;
  const examples = useMemo(() => typed.split(/[,;\s]+/).filter(Boolean), [typed]);
  const found = useQuery({
    queryKey: keys.codes(book.id, examples),
    queryFn: () => searchCodes(book.id, examples),
    enabled: examples.length > 0,
    retry: false,
    staleTime: 0,
    gcTime: 0,
  });

  useTold(found.error);
  const folders = foldersOf(shared.data ?? []);
  const candidates = useMemo(
    (): Candidate[] =>
      source === own
        ? (files.data ?? []).map(({ id, name }) => ({
            id,
            name,
            destination: { kind: "file", file: id },
            mayOpen: null,
          }))
        : (shared.data ?? [])
            .filter(({ folder }) => `folder:${folder}` === source)
            .map(({ name, address, audience, group }) => ({
              id: address,
              name,
              destination: { kind: "file", share: address },
              mayOpen: {
                words: whoMayOpen(audience, group),
                isClosed: audience !== "anyone" && group !== book.audience,
              },
            })),
    [source, files.data, shared.data, book.audience],
  );
  const hits = useMemo(
    () =>
      (found.data?.chapters ?? []).flatMap(({ chapterId, chapter, revision, mentions }) =>
        // A code that is linked already keeps its link.
        mentions.filter(({ link }) => !link).map((mention) => ({ ...mention, chapterId, chapter, revision })),
      ),
    [found.data],
  );
  const matches = useMemo(
    () =>
      matchCodes(
        hits.map(({ text }) => text),
        candidates,
      ).map((match): CodeMatch => {
        const hand = byHand.get(match.code);
        return hand === undefined
          ? match
          : { ...match, file: candidates.find(({ id }) => id === hand) ?? null };
      }),
    [hits, candidates, byHand],
  );
  const confirmed = matches.filter(({ code, file }) => file && !unticked.has(code));
  const unused = unusedFiles(matches, candidates);

  const link = async (): Promise<void> => {
    setBusy(true);
    setProblem(null);
    const destinations = new Map(
      confirmed.map(({ code, file }) => [code, candidates.find(({ id }) => id === file!.id)!.destination]),
    );
    try {
      const links = hits.flatMap(({ text, chapterId, revision, from, to }) => {
        const destination = destinations.get(text);
        return destination ? [{ chapterId, revision, from, to, destination: { ...destination } }] : [];
      });
      stepDone(
        await answerOf(
          api.POST("/api/books/{bookId}/links", {
            params: { path: { bookId: book.id } },
            body: { kind: "codes", of: shortList(confirmed.map(({ code }) => code)), links },
          }),
        ),
      );
      // The same codes and files stay in view, with what is left of them.
      setGiven({ typed, source });
      await found.refetch();
      setByHand(new Map());
    } catch (error) {
      setProblem((error as Error).message);
    }
    setBusy(false);
  };
  const tick = (code: string, on: boolean): void => {
    const next = new Set(unticked);
    if (on) next.delete(code);
    else next.add(code);
    setUnticked(next);
  };
  const matched = matches.filter(({ file }) => file);
  return (
    <LinksFrame>
      <div className="h-full overflow-y-auto p-5">
        <div className="mx-auto max-w-5xl">
          <h1 className="font-serif text-2xl">Match codes to files</h1>
          <p className="text-faint">
            Item codes in the text, such as R3 and R12, each get the file of that name.{" "}
            {noticed && typed === noticed.examples.join(" ")
              ? "These are in your text, and files bear them in their names."
              : "Give one or two of them as examples."}
          </p>
          <div className="mt-3 grid gap-6 md:grid-cols-2">
            <Field
              label="Codes as they stand in the text"
              value={typed}
              spellCheck={false}
              placeholder="R3 R12"
              hint={
                found.data?.pattern
                  ? `Pattern: ${shownPattern(found.data.pattern)}`
                  : "Divided by blanks. Parts that differ may be any number or any letters."
              }
              problem={found.error?.message ?? null}
              // What is noticed later does not come between somebody who is about to type.
              onFocus={() => setGiven({ ...given, typed })}
              onBlur={() => {
                if (typed === "") setGiven(given.source === undefined ? {} : { source: given.source });
              }}
              onChange={(event) => setGiven({ ...given, typed: event.target.value })}
            />
            <div>
              <label htmlFor="source" className="block text-sm text-faint">
                Files to match with
              </label>
              <select
                id="source"
                value={source}
                onChange={(event) => setGiven({ typed, source: event.target.value })}
                className="mt-1 min-h-8 border border-hairline bg-paper px-1"
              >
                <option value={own}>Companion files of the book ({files.data?.length ?? 0})</option>
                {folders.map((folder) => (
                  <option key={folder} value={`folder:${folder}`}>
                    Shared drive: {folder}
                  </option>
                ))}
              </select>
            </div>
          </div>
          {problem && <Problem>{problem}</Problem>}
          {found.isFetching && <Waiting what="Looking for codes" />}
          {!found.isFetching && found.data && hits.length === 0 && (
            <p className="mt-5">No such code stands in the text without a link.</p>
          )}
          {!found.isFetching && matches.length > 0 && (
            <>
              <table className="mt-5 w-full bg-paper text-left">
                <thead className="text-sm text-faint">
                  <tr>
                    <th scope="col" className="border-b border-edge px-3 py-1">
                      <input
                        type="checkbox"
                        aria-label="Confirm all"
                        className="size-4 accent-blue"
                        checked={matched.length > 0 && matched.every(({ code }) => !unticked.has(code))}
                        onChange={(event) =>
                          setUnticked(
                            event.target.checked ? new Set() : new Set(matches.map(({ code }) => code)),
                          )
                        }
                      />
                    </th>
                    {["Code", "Where", "File", "How it fits"].map((head) => (
                      <th key={head} scope="col" className="border-b border-edge px-3 py-1 font-normal">
                        {head}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {matches.map((match) => {
                    const places = hits.filter(({ text }) => text === match.code);
                    return (
                      <tr key={match.code} className="align-baseline">
                        <td className="border-b border-hairline px-3 py-1.5">
                          <input
                            type="checkbox"
                            aria-label={`Confirm ${match.code}`}
                            className="size-4 accent-blue"
                            disabled={!match.file}
                            checked={Boolean(match.file) && !unticked.has(match.code)}
                            onChange={(event) => tick(match.code, event.target.checked)}
                          />
                        </td>
                        <th
                          scope="row"
                          className="border-b border-hairline px-3 py-1.5 font-mono font-semibold"
                        >
                          {match.code}
                        </th>
                        <td className="border-b border-hairline px-3 py-1.5 text-sm">
                          {plural(places.length, "place")}:{" "}
                          {[...new Set(places.map(({ chapter }) => chapter))].join(", ")}
                          <span className="block font-serif text-faint">
                            …{places[0]!.before}
                            <strong className="text-ink">{match.code}</strong>
                            {places[0]!.after}…
                          </span>
                        </td>
                        <td className="border-b border-hairline px-3 py-1.5">
                          <select
                            aria-label={`File for ${match.code}`}
                            value={match.file?.id ?? ""}
                            onChange={(event) =>
                              setByHand(new Map(byHand).set(match.code, event.target.value))
                            }
                            className="min-h-8 max-w-60 border border-hairline bg-paper px-1"
                          >
                            <option value="">none</option>
                            {candidates.map(({ id, name }) => (
                              <option key={id} value={id}>
                                {name}
                              </option>
                            ))}
                          </select>
                          <MayOpen file={candidates.find(({ id }) => id === match.file?.id)} />
                        </td>
                        <td className="border-b border-hairline px-3 py-1.5 text-sm">
                          <Quality match={match} isByHand={byHand.has(match.code)} />
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
              <div className="mt-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
                <Button kind="main" disabled={busy || confirmed.length === 0} onClick={() => void link()}>
                  {busy
                    ? "Linking …"
                    : `Link ${plural(confirmed.length, "code")} in ${plural(hits.filter(({ text }) => confirmed.some(({ code }) => code === text)).length, "place")}`}
                </Button>
                <span>
                  {matches.length - matched.length === 0
                    ? "Every code has a file."
                    : `Without a file: ${matches
                        .filter(({ file }) => !file)
                        .map(({ code }) => code)
                        .join(", ")}.`}
                </span>
              </div>
            </>
          )}
          {found.data && unused.length > 0 && (
            <p className="mt-3 text-faint">
              Files that no code stands for: {unused.map(({ name }) => name).join(", ")}.
            </p>
          )}
          {candidates.length === 0 && files.data && (
            <EmptyPage next="Bring files in" to={`/books/${book.id}/links/files`}>
              Where the text names things by codes, each code can be linked to the file of that name, all at
              once. There are no files to match with here yet.
            </EmptyPage>
          )}
        </div>
      </div>
    </LinksFrame>
  );
}

function foldersOf(files: readonly { folder: string }[]): string[] {
  return [...new Set(files.map(({ folder }) => folder))];
}

/** Who may open a shared file; in red where readers may not. */
function MayOpen({ file }: { file: Candidate | undefined }) {
  if (!file?.mayOpen) return null;
  const { words, isClosed } = file.mayOpen;
  return (
    <span className={`flex items-center gap-1 text-sm ${isClosed ? "text-red" : "text-faint"}`}>
      {isClosed ? <Lock aria-hidden size={13} /> : <LockOpen aria-hidden size={13} />}
      {isClosed ? `${words}; your readers may not` : words}
    </span>
  );
}

const namedAtMost = 12;

function shortList(codes: string[]): string {
  const further = codes.length - namedAtMost;
  return further > 0 ? `${codes.slice(0, namedAtMost).join(", ")} and ${further} more` : codes.join(", ");
}

function Quality({ match, isByHand }: { match: CodeMatch; isByHand: boolean }) {
  if (isByHand) return <span>Chosen by hand</span>;
  const isTie = match.others.length > 0;
  const { icon, words } = qualities[match.quality];
  const Icon = isTie ? CircleQuestionMark : icon;
  return (
    <span className={`inline-flex items-center gap-1 ${match.quality === "none" || isTie ? "text-red" : ""}`}>
      <Icon aria-hidden size={14} />
      {isTie ? `${words}, and so has ${match.others.map(({ name }) => name).join(", ")}` : words}
    </span>
  );
}

/** A pattern as people read it. */
function shownPattern(pattern: string): string {
  return pattern
    .replace(/\\d\+/g, "‹number›")
    .replace(/\\p\{L\}\+/g, "‹letters›")
    .replace(/\\(.)/g, "$1");
}
