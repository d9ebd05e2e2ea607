import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type BookFinding } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { useStepDone } from "../links/use-step-done";
import { Button } from "../parts/button";
import { SeverityMark } from "../parts/finding-mark";
import { Problem, Waiting } from "../parts/notice";
import { plural } from "../parts/wording";
import { ChecksFrame } from "./checks-frame";
import { FindingRow } from "./finding-row";
import { useRun } from "./use-run";

type Severity = BookFinding["severity"];
const severities: Severity[] = ["stop", "fix", "consider"];

/** What the rules find in the whole book, by what there is to do, the gravest first. */
export function FindingsPage() {
  const book = useBook();
  const stale = useStale();
  const stepDone = useStepDone(book.id);
  const [only, setOnly] = useState<Severity | null>(null);
  const [accepted, setAccepted] = useState(false);
  const [search, setSearch] = useState("");
  const [chapter, setChapter] = useState("");
  const run = useRun(book.id);
  const [problem, setProblem] = useState<string | null>(null);
  const params = { path: { bookId: book.id } };
  const findings = useQuery({
    queryKey: keys.findings(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/findings", { params })),
    // The text may have changed since this page was last seen.
    staleTime: 0,
  });
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await work();
      await stale("acceptances");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const mend = (rule: string, one: BookFinding | null): void =>
    void attempt(async () => {
      const links = one?.chapterId ? { links: [{ chapterId: one.chapterId, linkId: one.subject }] } : {};
      stepDone(
        await answerOf(api.POST("/api/books/{bookId}/findings/mend", { params, body: { rule, ...links } })),
      );
    });
  const all = findings.data ?? [];
  const open = all.filter((one) => one.accepted === null);
  /** All that one press would put right, whatever the filters show of it. */
  const allOf = (rule: string): BookFinding[] =>
    open.filter((one) => one.rule === rule && one.mend && one.isSure);
  const words = search.trim().toLowerCase();
  const shown = all.filter(
    (one) =>
      (only === null || one.severity === only) &&
      (accepted ? one.accepted !== null : one.accepted === null) &&
      (chapter === "" || one.chapterId === chapter) &&
      (words === "" || `${one.text ?? ""} ${one.address ?? ""} ${one.title}`.toLowerCase().includes(words)),
  );
  const chapters = new Map(
    all.flatMap((one) => (one.chapterId ? [[one.chapterId, one.chapter ?? ""] as const] : [])),
  );
  const count = (severity: Severity): number => open.filter((one) => one.severity === severity).length;
  return (
    <ChecksFrame>
      <div className="h-full overflow-y-auto" tabIndex={0} role="region" aria-label="Findings of the rules">
        <div className="mx-auto max-w-5xl px-6 py-6">
          <h1 className="font-serif text-3xl font-semibold">Findings</h1>
          {findings.isPending && <Waiting what="Checking the book" />}
          {findings.error && (
            <Problem action={<Button onClick={() => void findings.refetch()}>Try again</Button>}>
              {findings.error.message}
            </Problem>
          )}
          {problem && <Problem>{problem}</Problem>}
          {findings.data && (
            <div
              role="group"
              aria-label="Which findings"
              className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1"
            >
              <Choice isOn={!accepted && only === null} onChoose={() => (setOnly(null), setAccepted(false))}>
                All {open.length}
              </Choice>
              {severities.map((severity) => (
                <Choice
                  key={severity}
                  isOn={!accepted && only === severity}
                  onChoose={() => (setOnly(severity), setAccepted(false))}
                >
                  {count(severity)} <SeverityMark severity={severity} />
                </Choice>
              ))}
              <Choice isOn={accepted} onChoose={() => (setOnly(null), setAccepted(true))}>
                {all.length - open.length} accepted
              </Choice>
              <span className="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1">
                <input
                  type="search"
                  aria-label="Words or address"
                  placeholder="Words or address"
                  value={search}
                  onChange={(event) => setSearch(event.target.value)}
                  className="w-44 border-b border-edge bg-transparent px-0.5 py-0.5 placeholder:text-faint"
                />
                <select
                  aria-label={book.finished ? "Page" : "Chapter"}
                  value={chapter}
                  onChange={(event) => setChapter(event.target.value)}
                  className="min-h-7 max-w-48 border border-hairline bg-paper px-1"
                >
                  <option value="">all {book.finished ? "pages" : "chapters"}</option>
                  {[...chapters].map(([id, title]) => (
                    <option key={id} value={id}>
                      {title}
                    </option>
                  ))}
                </select>
              </span>
            </div>
          )}
          {findings.data && run.isUnderWay && (
            <p role="status" className="mt-2 text-faint">
              Checking: {run.job!.done} of {run.job!.total || "…"} addresses.
            </p>
          )}
          {run.problem && <Problem>{run.problem}</Problem>}
          {findings.data && shown.length === 0 && (
            <p className="mt-4 border border-hairline bg-paper p-10 font-serif text-lg">
              {accepted
                ? "Nothing has been accepted. What may stay on purpose is accepted with a reason, here or in a margin card."
                : words !== "" || chapter !== ""
                  ? "Nothing here fits the words and the chapter that you chose."
                  : only
                    ? `Nothing here to ${only === "consider" ? "consider" : "put right"}.`
                    : "The rules find nothing to put right."}
            </p>
          )}
          {byRule(shown).map((group) => {
            const [first] = group as [BookFinding];
            const mendable = group.filter((one) => one.mend && one.isSure && one.accepted === null);
            return (
              <section
                key={first.rule}
                aria-label={first.title}
                className="mt-5 border border-hairline bg-paper"
              >
                <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline px-4 py-2">
                  <h2 className="font-serif text-lg">{first.title}</h2>
                  <SeverityMark severity={first.severity} />
                  <span className="text-sm text-faint">{plural(group.length, "place")}</span>
                  <span className="ml-auto flex flex-wrap gap-2">
                    {first.rule.startsWith("destination-") && !accepted && (
                      <Button
                        disabled={run.isUnderWay}
                        onClick={() => void run.begin({ addresses: addressesOf(group) })}
                      >
                        Check {group.length === 1 ? "it" : "them"} again
                      </Button>
                    )}
                    {mendable.length > 1 && mendable.length === allOf(first.rule).length && (
                      <Button onClick={() => mend(first.rule, null)}>Mend all {mendable.length}</Button>
                    )}
                  </span>
                  <p className="basis-full text-sm text-faint">{first.source}</p>
                </div>
                <ul>
                  {group.map((one) => (
                    <FindingRow
                      key={`${one.chapterId} ${one.subject}`}
                      bookId={book.id}
                      finding={one}
                      onMend={() => mend(one.rule, one)}
                      onAccept={(reason) =>
                        attempt(() =>
                          answerOf(
                            api.PUT("/api/books/{bookId}/acceptances", {
                              params,
                              body: { subject: one.subject, rule: one.rule, reason },
                            }),
                          ),
                        )
                      }
                      onTakeBack={() =>
                        void attempt(() =>
                          answerOf(
                            api.DELETE("/api/books/{bookId}/acceptances/{subject}/{rule}", {
                              params: { path: { ...params.path, subject: one.subject, rule: one.rule } },
                            }),
                          ),
                        )
                      }
                    />
                  ))}
                </ul>
              </section>
            );
          })}
        </div>
      </div>
    </ChecksFrame>
  );
}

function Choice({
  isOn,
  onChoose,
  children,
}: {
  isOn: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onChoose}
      className="inline-flex items-center gap-1.5 underline-offset-4 hover:text-blue aria-pressed:font-semibold aria-pressed:underline"
    >
      {children}
    </button>
  );
}

function addressesOf(findings: readonly BookFinding[]): string[] {
  return [...new Set(findings.flatMap(({ address }) => (address === null ? [] : [address])))];
}

/** The findings of each rule together, in the order in which the rules come. */
function byRule(findings: BookFinding[]): BookFinding[][] {
  const groups = new Map<string, BookFinding[]>();
  for (const finding of findings) {
    const group = groups.get(finding.rule);
    if (group) group.push(finding);
    else groups.set(finding.rule, [finding]);
  }
  return [...groups.values()];
}
