import { useBook } from "../book-page";
import { EmptyPage } from "../parts/empty-page";
import { Waiting } from "../parts/notice";
import { linkStates, StateMark, stateWord } from "../parts/state-mark";
import { shownDate } from "../parts/wording";
import { ChecksFrame } from "./checks-frame";
import { CheckPlan } from "./check-plan";
import { HealthChart } from "./health-chart";
import { useRuns } from "./use-run";
import { NotRead } from "../parts/not-read";

/** How the book's links fared over its runs, when it is asked by itself, and the report of its findings. */
export function HealthPage() {
  const book = useBook();
  const runs = useRuns(book.id);
  const all = runs.data ?? [];
  const report = `/api/books/${book.id}/report?as=`;
  return (
    <ChecksFrame>
      <div className="h-full overflow-y-auto" tabIndex={0} role="region" aria-label="Link health">
        <div className="mx-auto max-w-5xl px-6 py-6">
          <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
            <h1 className="mr-auto font-serif text-3xl font-semibold">Link health</h1>
            <span>
              Report: <ReportLink to={`${report}page`} words="web page" newWindow />,{" "}
              <ReportLink to={`${report}csv`} words="CSV" />, <ReportLink to={`${report}json`} words="JSON" />
            </span>
          </div>
          {runs.isPending && <Waiting what="Reading the runs" />}
          <NotRead of={runs} />
          {runs.data && all.length === 0 && (
            <EmptyPage next="Check the addresses" to={`/books/${book.id}/checks`}>
              Here you see over months how the destinations of the book fare. No run has come to its end yet;
              below, runs can be planned.
            </EmptyPage>
          )}
          {all.length > 0 && (
            <div className="mt-4 border border-hairline bg-paper p-4">
              <HealthChart runs={all} />
              <ul aria-label="What the bars show" className="mt-2 flex flex-wrap gap-x-5 text-sm">
                {linkStates.map((state) => (
                  <li key={state} className="flex items-center gap-1.5">
                    <svg aria-hidden width="14" height="14" className="border border-edge">
                      <rect width="14" height="14" fill={`url(#health-${state})`} />
                    </svg>
                    <StateMark state={state} />
                  </li>
                ))}
              </ul>
              <details className="mt-3">
                <summary className="w-fit underline decoration-edge underline-offset-4 hover:text-blue">
                  The same in numbers
                </summary>
                <div className="mt-2 overflow-x-auto">
                  <table className="w-full text-sm tabular-nums">
                    <thead>
                      <tr className="border-b border-hairline text-left">
                        <th scope="col">Run</th>
                        <th scope="col" className="text-right">
                          Checked
                        </th>
                        {linkStates.map((state) => (
                          <th key={state} scope="col" className="text-right">
                            {stateWord(state)}
                          </th>
                        ))}
                        <th scope="col" className="text-right">
                          Newly broken
                        </th>
                        <th scope="col" className="text-right">
                          Well again
                        </th>
                      </tr>
                    </thead>
                    <tbody>
                      {[...all].reverse().map(({ id, endedAt, asked, counts, newlyBroken, wellAgain }) => (
                        <tr key={id} className="border-b border-hairline last:border-b-0">
                          <th scope="row" className="text-left font-normal whitespace-nowrap">
                            {shownDate(endedAt)}
                          </th>
                          {[asked, ...linkStates.map((state) => counts[state]), newlyBroken, wellAgain].map(
                            (count, i) => (
                              <td key={i} className="text-right">
                                {count}
                              </td>
                            ),
                          )}
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              </details>
            </div>
          )}
          <CheckPlan />
        </div>
      </div>
    </ChecksFrame>
  );
}

function ReportLink({ to, words, newWindow = false }: { to: string; words: string; newWindow?: boolean }) {
  return (
    <a
      href={to}
      {...(newWindow ? { target: "_blank", rel: "noreferrer" } : { download: true })}
      className="underline decoration-edge underline-offset-4 hover:text-blue"
    >
      {words}
      {newWindow && <span className="sr-only"> (opens in a new window)</span>}
    </a>
  );
}
