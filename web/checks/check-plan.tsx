import { useMutation } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { useSharedFiles } from "../destinations/known-destinations";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { shownDate } from "../parts/wording";

const plainSchedules: [cron: string, words: string][] = [
  ["", "never"],
  ["0 3 * * *", "every night"],
  ["0 3 * * 1", "every Monday"],
  ["0 3 1 * *", "on the first of each month"],
];
const freshTimes: [hours: number, words: string][] = [
  [6, "6 hours"],
  [24, "a day"],
  [168, "a week"],
  [720, "30 days"],
];
const select = "min-h-8 w-fit border border-hairline bg-paper px-1";

/** When the book's destinations are asked by themselves, how long an answer is fresh, and who the readers are. */
export function CheckPlan() {
  const book = useBook();
  const stale = useStale();
  const shared = useSharedFiles(book.id).data;
  const isPlain = plainSchedules.some(([cron]) => cron === (book.schedule ?? ""));
  const [schedule, setSchedule] = useState(book.schedule ?? "");
  const [isOwn, setOwn] = useState(!isPlain);
  const [freshHours, setFreshHours] = useState(book.freshHours);
  const [audience, setAudience] = useState(book.audience);
  const save = useMutation({
    mutationFn: () =>
      answerOf(
        api.PATCH("/api/books/{bookId}", {
          params: { path: { bookId: book.id } },
          body: { schedule: schedule.trim() || null, freshHours, audience },
        }),
      ),
    onSuccess: () => stale("settings"),
  });
  const isChanged =
    schedule !== (book.schedule ?? "") || freshHours !== book.freshHours || audience !== book.audience;
  const groups = [...new Set((shared ?? []).flatMap(({ group }) => (group ? [group] : [])))];
  const times = freshTimes.some(([hours]) => hours === freshHours)
    ? freshTimes
    : [...freshTimes, [freshHours, `${freshHours} hours`] as const];
  return (
    <section aria-label="Plan" className="mt-5 border border-hairline bg-paper">
      <h2 className="border-b border-hairline px-4 py-2 font-serif text-lg">Plan</h2>
      <Row label="Check by itself">
        {(id) => (
          <div className="flex flex-wrap items-end gap-3">
            <select
              id={id}
              value={isOwn ? "own" : schedule}
              className={select}
              onChange={({ target: { value } }) => {
                setOwn(value === "own");
                if (value !== "own") setSchedule(value);
              }}
            >
              {plainSchedules.map(([cron, words]) => (
                <option key={cron} value={cron}>
                  {words}
                </option>
              ))}
              <option value="own">by a cron expression</option>
            </select>
            {isOwn && (
              <Field
                label="Minute, hour, day, month, day of the week"
                value={schedule}
                maxLength={100}
                placeholder="0 3 * * 1,4"
                onChange={(event) => setSchedule(event.target.value)}
              />
            )}
            <span className="text-sm text-faint">
              {book.nextRunAt ? `Next ${shownDate(book.nextRunAt)}.` : "No run is planned."} Times of plans
              are UTC; nights mean three o’clock.
            </span>
          </div>
        )}
      </Row>
      <Row label="Check again after">
        {(id) => (
          <select
            id={id}
            value={freshHours}
            className={select}
            onChange={(event) => setFreshHours(Number(event.target.value))}
          >
            {times.map(([hours, words]) => (
              <option key={hours} value={hours}>
                {words}
              </option>
            ))}
          </select>
        )}
      </Row>
      <Row label="Readers of the book">
        {(id) => (
          <select
            id={id}
            value={audience}
            className={select}
            onChange={(event) => setAudience(event.target.value)}
          >
            <option value="anyone">anyone</option>
            {[...new Set([...groups, ...(audience === "anyone" ? [] : [audience])])].map((group) => (
              <option key={group} value={group}>
                {group}
              </option>
            ))}
          </select>
        )}
      </Row>
      {save.error && <Problem>{save.error.message}</Problem>}
      <div className="flex flex-wrap items-center gap-4 px-4 py-3">
        <Button kind="main" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          {save.isPending ? "Saving …" : "Save"}
        </Button>
        {save.isSuccess && !isChanged && <span role="status">The plan is kept.</span>}
      </div>
    </section>
  );
}

function Row({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = `plan-${label.replace(/\W+/g, "-").toLowerCase()}`;
  return (
    <div className="grid gap-x-6 gap-y-1 border-b border-hairline px-4 py-2.5 md:grid-cols-[13rem_1fr] md:items-center">
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  );
}
