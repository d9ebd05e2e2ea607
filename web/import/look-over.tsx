import type { FormEvent } from "react";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { plural } from "../parts/wording";
import { Arrival } from "./arrival";
import { FileField } from "./file-field";
import { filled } from "./filled";
import type { Import, Looked } from "./use-import";

/** What arrived of a manuscript, before it is kept: its arrival proof, with what can still be done about it. */
export function LookOver({
  looked,
  into,
  arriving,
}: {
  looked: Looked;
  /** The book that it is to be chapters of; null for one of its own. */
  into: string | null;
  arriving: Import;
}) {
  const { title, chapters, links, arrival, jobId } = looked;
  const { problem, again, keep, drop } = arriving;
  const onAgain = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    again(filled(event.currentTarget));
  };
  return (
    <section aria-label="Look it over" className="mt-4 grid gap-5 border border-hairline bg-paper p-6">
      <div>
        <h2 className="font-serif text-xl font-semibold [overflow-wrap:anywhere]">{title}</h2>
        <p className="text-sm text-faint [overflow-wrap:anywhere]">
          {arrival.fileName}: {plural(chapters, "chapter")}, {plural(links, "link")}. Nothing of it is kept
          yet.
        </p>
      </div>
      <Arrival
        arrival={arrival}
        mendOf={({ mend }) =>
          mend === "base-address" ? (
            <form onSubmit={onAgain} className="mb-4 grid gap-3 border-l-2 border-blue py-1 pl-4">
              <Field
                name="baseAddress"
                label="They start from this web address"
                placeholder="https://"
                problem={problem?.field === "baseAddress" ? problem.message : null}
              />
              <FileField name="files" label="Or bring the files" multiple />
              <div>
                <Button type="submit">Read it again with these</Button>
              </div>
            </form>
          ) : mend === "places" ? (
            <p className="mb-2">
              Once it is kept, each has a card in the margin that says so, and there it is given a place.
            </p>
          ) : null
        }
      />
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep(String(new FormData(event.currentTarget).get("title") ?? "").trim());
        }}
      >
        {into === null && <Field name="title" label="Title of the book" defaultValue={title} />}
        {problem && problem.field !== "baseAddress" && <Problem>{problem.message}</Problem>}
        <div className="flex flex-wrap items-center gap-3">
          <Button kind="main" type="submit">
            {into === null ? "Keep it" : "Keep these chapters"}
          </Button>
          <Button kind="quiet" onClick={drop}>
            Drop it
          </Button>
          <a
            href={`/api/jobs/${jobId}/import/arrival.csv`}
            className="ml-auto inline-flex min-h-7 items-center text-sm underline decoration-edge underline-offset-4 hover:text-blue"
          >
            Every link as a table (CSV)
          </a>
        </div>
      </form>
    </section>
  );
}
