import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answerOf, api, type BookFinding } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { useStepDone } from "../links/use-step-done";
import { severityMeanings, severityWords, SeverityMark } from "../parts/finding-mark";
import { Problem, Waiting } from "../parts/notice";
import { ChecksFrame } from "./checks-frame";
import { FindingGroup } from "./finding-group";
import type { FindingActions } from "./finding-row";
import { useFindingKeys } from "./use-finding-keys";
import { useRun } from "./use-run";
import { useSaidOfDestination } from "./use-said-of-destination";
import { NotRead } from "../parts/not-read";

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
  const said = useSaidOfDestination(book.id);
  const list = useRef<HTMLDivElement>(null);
  const params = { path: { bookId: book.id } };
  const findings = useQuery({
    queryKey: keys.findings(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/findings", { params })),
    // The text may have changed since this page was last seen.
    staleTime: 0,
  });
  useFindingKeys(list, findings.data);
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
  const actions: FindingActions = {
    mend: (one) => mend(one.rule, one),
    accept: (one, reason) =>
      attempt(() =>
        answerOf(
          api.PUT("/api/books/{bookId}/acceptances", {
            params,
            body: { subject: one.subject, rule: one.rule, reason },
          }),
        ),
      ),
    takeBack: (one) =>
      void attempt(() =>
        answerOf(
          api.DELETE("/api/books/{bookId}/acceptances/{subject}/{rule}", {
            params: { path: { ...params.path, subject: one.subject, rule: one.rule } },
          }),
        ),
      ),
    check: run.isUnderWay ? null : (addresses) => void run.begin({ addresses }),
    looked: (address) => void attempt(() => said.looked(address)),
    stillRight: (address) => void attempt(() => said.stillRight(address)),
  };
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
      <div
        ref={list}
        className="h-full overflow-y-auto"
        tabIndex={0}
        role="region"
        aria-label="Findings of the rules"
      >
        <div className="mx-auto max-w-5xl px-6 py-6">
          <h1 className="font-serif text-3xl font-semibold">Findings</h1>
          {findings.isPending && <Waiting what="Checking the book" />}
          <NotRead of={findings} />
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
          {findings.data && open.length > 0 && (
            <dl className="mt-1 flex flex-wrap gap-x-5 text-sm text-faint">
              {severities
                .filter((severity) => (only === null ? count(severity) > 0 : severity === only))
                .map((severity) => (
                  <div key={severity} className="flex gap-1">
                    <dt>{severityWords[severity]}:</dt>
                    <dd>{severityMeanings[severity]}</dd>
                  </div>
                ))}
            </dl>
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
          {byRule(shown).map((group) => (
            <FindingGroup
              key={group[0]!.rule}
              bookId={book.id}
              group={group}
              actions={actions}
              onMendAll={
                group.filter((one) => one.mend && one.isSure).length === allOf(group[0]!.rule).length
                  ? () => mend(group[0]!.rule, null)
                  : null
              }
            />
          ))}
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
