import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Job, type Preflight } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { isUnderWay } from "../api/follow-job";
import { useJob } from "../api/use-job";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { useStepDone } from "../links/use-step-done";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import type { Choices } from "./formats/format-on-screen";
import { defaultChoices, formatNames, formats } from "./formats/formats";
import { ExportRow } from "./export-row";
import { layoutWords } from "./layout-words";
import { PreflightTable } from "./preflight";
import { Presets } from "./presets";
import { UnderWay } from "./under-way";
import { NotRead } from "../parts/not-read";

/** Exports the book, and shows for every export whether all of its links are in the file. */
export function ExportPage() {
  const book = useBook();
  const queries = useQueryClient();
  const stale = useStale();
  const stepDone = useStepDone(book.id);
  const params = { path: { bookId: book.id } };
  const [options, setOptions] = useState(defaultChoices("pdf"));
  const [problem, setProblem] = useState<string | null>(null);
  const [isBeginning, setIsBeginning] = useState(false);
  const { format } = options;
  const { Fields, Settings } = formats[format];
  const exports = useQuery({
    queryKey: keys.exports(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/exports", { params })),
  });
  const preflight = useQuery({
    queryKey: keys.preflight(book.id, options),
    queryFn: () => answerOf(api.POST("/api/books/{bookId}/exports/preflight", { params, body: options })),
    staleTime: 0,
    placeholderData: (before) => before,
  });
  const jobs = useQuery({
    queryKey: keys.latestExport(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/exports/latest-job", { params })),
  });
  const job = useJob(jobs.data?.[0] ?? null, (next) => {
    if (isUnderWay(next)) return;
    void stale("export");
  });
  const begin = async (chosen: Choices): Promise<void> => {
    setProblem(null);
    setIsBeginning(true);
    try {
      const begun = await answerOf(api.POST("/api/books/{bookId}/exports", { params, body: chosen }));
      queries.setQueryData(keys.latestExport(book.id), [begun]);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setIsBeginning(false);
    }
  };
  const cancel = async (under: Job): Promise<void> => {
    try {
      await answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: under.id } } }));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const mend = async ({ chapterId, mend: by }: Preflight["obstacles"][number]): Promise<void> => {
    if (!by || chapterId === null) return;
    setProblem(null);
    try {
      const body = { rule: by.rule, links: [{ chapterId, linkId: by.linkId }] };
      stepDone(await answerOf(api.POST("/api/books/{bookId}/findings/mend", { params, body })));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const busy = isBeginning || isUnderWay(job);
  return (
    <PageFrame book={book}>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-6xl px-6 py-6">
          <h1 className="font-serif text-3xl font-semibold">Export</h1>
          <fieldset className="mt-3 flex flex-wrap gap-x-6 gap-y-1 border-b border-hairline pb-2">
            <legend className="sr-only">Format</legend>
            {formatNames.map((one) => (
              <label
                key={one}
                className={`flex min-h-8 items-center gap-2 font-serif text-lg ${one === format ? "" : "text-faint"}`}
              >
                <input
                  type="radio"
                  name="format"
                  checked={one === format}
                  onChange={() => setOptions({ ...options, format: one, layout: null })}
                  className="size-4 accent-blue"
                />
                {formats[one].name}
              </label>
            ))}
          </fieldset>
          <div className="grid gap-x-10 gap-y-4 py-4 md:grid-cols-[19rem_1fr]">
            <section aria-label={formats[format].name} className="flex flex-col gap-4">
              <p className="text-sm text-faint">{formats[format].about}</p>
              <div className="grid gap-3">
                <Fields
                  chosen={options as never}
                  hasPages={preflight.data?.hasPages ?? false}
                  onChange={(to: object) => setOptions({ ...options, ...to })}
                />
              </div>
              {options.layout && (
                <p className="text-sm">
                  Pages as the preset has them: {layoutWords(options.layout)}.{" "}
                  <Button kind="quiet" onClick={() => setOptions({ ...options, layout: null })}>
                    Take the book’s own
                  </Button>
                </p>
              )}
              <Button kind="main" className="self-start" disabled={busy} onClick={() => void begin(options)}>
                {formats[format].action}
              </Button>
            </section>
            <section
              aria-label="What becomes of the links"
              className="min-w-0 border-l border-hairline pl-6 max-md:border-l-0 max-md:pl-0"
            >
              <h2 className="mb-1 text-sm text-faint">What becomes of the links</h2>
              <NotRead of={preflight} />
              {preflight.isPending && <Waiting what="Looking through the links" />}
              {preflight.data && (
                <PreflightTable
                  bookId={book.id}
                  preflight={preflight.data}
                  onMend={(one) => void mend(one)}
                />
              )}
            </section>
          </div>
          {Settings && <Settings />}
          <div className="mt-4 flex flex-col gap-3">
            {problem && <Problem>{problem}</Problem>}
            {isUnderWay(job) && <UnderWay job={job} onCancel={() => void cancel(job)} />}
            {job?.state === "failed" && <Problem>{`The last export was not made.\n${job.message}`}</Problem>}
            {job?.state === "cancelled" && <p role="status">The last export was cancelled.</p>}
          </div>
          <h2 className="mt-4 font-serif text-xl">Exported files</h2>
          {exports.isPending && <Waiting what="Looking for exports" />}
          <NotRead of={exports} />
          {exports.data?.length === 0 && (
            <p className="mt-3 border border-hairline bg-paper p-8 font-serif text-lg">
              Nothing has been exported yet. Each file will be read back here, and its links compared with the
              manuscript’s.
            </p>
          )}
          {exports.data && exports.data.length > 0 && (
            <ul className="mt-3 border border-hairline bg-paper">
              {exports.data.map((one) => (
                <ExportRow key={one.id} one={one} />
              ))}
            </ul>
          )}
          <Presets
            options={options}
            isBusy={busy}
            onTakeUp={setOptions}
            onExport={(chosen) => void begin(chosen)}
          />
        </div>
      </div>
    </PageFrame>
  );
}
