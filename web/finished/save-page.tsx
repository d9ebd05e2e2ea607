import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Job } from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { isUnderWay } from "../api/follow-job";
import { useJob } from "../api/use-job";
import { useBook } from "../book-page";
import { ExportRow } from "../export/export-row";
import { UnderWay } from "../export/under-way";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { formatWords } from "./formats";
import { NotRead } from "../parts/not-read";

/** Saves a finished file with its links as they are now, and shows every version with its proof. */
export function SavePage() {
  const book = useBook();
  const stale = useStale();
  const params = { path: { bookId: book.id } };
  const [begun, setBegun] = useState<Job | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const versions = useQuery({
    queryKey: keys.exports(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/exports", { params })),
  });
  const job = useJob(begun, (next) => {
    if (!isUnderWay(next)) void stale("export");
  });
  const tell = (error: unknown): void => setProblem((error as Error).message);
  const save = (): void => {
    setProblem(null);
    answerOf(api.POST("/api/books/{bookId}/finished/versions", { params })).then(setBegun, tell);
  };
  const cancel = (under: Job): void => {
    answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: under.id } } })).catch(tell);
  };
  const { finished } = book;
  return (
    <PageFrame book={book}>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-5xl px-6 py-6">
          <h1 className="font-serif text-3xl font-semibold">Save</h1>
          <p className="mt-2 max-w-prose">{finished && formatWords[finished.format].howSaved}</p>
          {finished && !finished.isTagged && formatWords[finished.format].untagged && (
            <p className="mt-2 max-w-prose text-faint">{formatWords[finished.format].untagged}</p>
          )}
          {finished?.isSigned && (
            <p className="mt-2 max-w-prose text-red">
              A signature stands in this file. A version with changed links breaks it.
            </p>
          )}
          {finished?.hasBrokenTable && (
            <p className="mt-2 max-w-prose">
              This file is damaged: the table by which programs find its contents is broken, so they search
              for them. A saved version brings all of it anew with a whole table, and is about twice as large.
            </p>
          )}
          <div className="mt-4 flex flex-wrap items-center gap-4">
            <Button kind="main" disabled={isUnderWay(job)} onClick={save}>
              Save as a new version
            </Button>
            <a
              href={`/api/books/${book.id}/finished/file`}
              download={finished?.fileName}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              The file that came
            </a>
          </div>
          <div className="mt-4 flex flex-col gap-3">
            {problem && <Problem>{problem}</Problem>}
            {isUnderWay(job) && <UnderWay job={job} onCancel={() => cancel(job)} />}
            {job?.state === "failed" && <Problem>{`No version was saved.\n${job.message}`}</Problem>}
            {job?.state === "done" && <p role="status">{job.message}</p>}
            {job?.state === "cancelled" && <p role="status">Saving was cancelled.</p>}
          </div>
          <h2 className="mt-4 font-serif text-xl">Saved versions</h2>
          {versions.isPending && <Waiting what="Looking for versions" />}
          <NotRead of={versions} />
          {versions.data?.length === 0 && (
            <p className="mt-3 border border-hairline bg-paper p-8 font-serif text-lg">
              No version has been saved yet. Nothing of the file changes before you save one.
            </p>
          )}
          {versions.data && versions.data.length > 0 && (
            <ul className="mt-3 border border-hairline bg-paper">
              {versions.data.map((one) => (
                <ExportRow key={one.id} one={one} />
              ))}
            </ul>
          )}
        </div>
      </div>
    </PageFrame>
  );
}
