import { useState, type FormEvent } from "react";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { plural } from "../parts/wording";
import { Arrival } from "./arrival";
import { FileField } from "./file-field";
import { filled } from "./filled";
import type { Import, Looked } from "./use-import";
import { Version, type Side } from "./version";

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
  const { title, chapters, links, arrival, version, webPictures, jobId } = looked;
  const [choices, setChoices] = useState<Side[]>([]);
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
      {version && (
        <Version
          version={version}
          choices={choices}
          onChoose={(clash, side) => setChoices((all) => chosenAt(all, clash, side))}
        />
      )}
      {version && <h3 className="-mb-3 font-semibold">How its links arrived</h3>}
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
      {webPictures.count > 0 && (
        <form onSubmit={onAgain} className="grid gap-2 border-l-2 border-blue py-1 pl-4">
          <input type="hidden" name="fetchPictures" value="yes" />
          <p className="[overflow-wrap:anywhere]">
            {webPictures.count === 1 ? "One picture lies" : `${webPictures.count} pictures lie`} on the web,
            at {listed(webPictures.hosts)}. Fetched once, they become the book’s own.
          </p>
          <div>
            <Button type="submit">Fetch {plural(webPictures.count, "picture")}</Button>
          </div>
        </form>
      )}
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep(String(new FormData(event.currentTarget).get("title") ?? "").trim(), choices);
        }}
      >
        {into === null && <Field name="title" label="Title of the book" defaultValue={title} />}
        {problem && problem.field !== "baseAddress" && <Problem>{problem.message}</Problem>}
        <div className="flex flex-wrap items-center gap-3">
          <Button kind="main" type="submit">
            {version ? "Take it in" : into === null ? "Keep it" : "Keep these chapters"}
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

/** So many hosts are named. */
const namedHosts = 5;

function listed(hosts: readonly string[]): string {
  const more = hosts.length - namedHosts;
  return [...hosts.slice(0, namedHosts), ...(more > 0 ? [`${more} more`] : [])].join(", ");
}

/** The choices with one more; those before it that were not made are for the text that is here. */
function chosenAt(choices: readonly Side[], clash: number, side: Side): Side[] {
  const all = Array.from({ length: Math.max(choices.length, clash + 1) }, (_, i) => choices[i] ?? "here");
  all[clash] = side;
  return all;
}
