import { manuscriptFormatNames, manuscriptFormats } from "@vennet/core/import/formats";
import { useState } from "react";
import { Link } from "react-router";
import type { Imported } from "../api/client";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { plural } from "../parts/wording";
import type { DroppedFiles } from "./dropped-files";
import { ExampleDocuments } from "./example-documents";
import { FileField } from "./file-field";
import { filled } from "./filled";
import { LookOver } from "./look-over";
import { useImport } from "./use-import";

/** Brings a manuscript in, as a book or as new chapters of one: it is chosen, read, looked over, and kept. */
export function BringIn({
  into = null,
  dropped = null,
  onClose,
}: {
  /** The book that it is to be chapters of; null for one of its own. */
  into?: string | null;
  /** What was dropped onto the page, and chosen by that. */
  dropped?: DroppedFiles | null;
  onClose: () => void;
}) {
  const arriving = useImport(into);
  const { underWay, looked, kept, cancel } = arriving;
  if (kept) return <BroughtIn result={kept} into={into} onClose={onClose} />;
  if (underWay)
    return (
      <div className="mt-4 border border-hairline bg-paper p-6">
        <div className="mb-2 flex items-center justify-between gap-2">
          <span role="status">{underWay.message} …</span>
          <Button onClick={cancel}>Cancel</Button>
        </div>
        <Progress label="Bringing in" done={underWay.done} total={underWay.total} />
      </div>
    );
  if (looked) return <LookOver looked={looked} into={into} arriving={arriving} />;
  return <ManuscriptForm into={into} dropped={dropped} arriving={arriving} onClose={onClose} />;
}

const ways = [
  {
    value: "",
    name: "new chapters",
    about: "They come behind those that the book has. Each heading of the first level begins one.",
  },
  {
    value: "version",
    name: "a new version of what is in the book",
    about:
      "What was changed in the manuscript since it came in is changed here. What was done here stays, and links stay the same links.",
  },
];

function ManuscriptForm({
  into,
  dropped,
  arriving: { begin, problem },
  onClose,
}: {
  into: string | null;
  dropped: DroppedFiles | null;
  arriving: ReturnType<typeof useImport>;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState<boolean | null>(null);
  const [example, setExample] = useState<File[] | null>(null);
  const given = example ?? dropped?.manuscript;
  const isChosen = chosen ?? (given?.length ?? 0) > 0;
  return (
    <form
      className="mt-4 grid gap-5 border border-hairline bg-paper p-6"
      onSubmit={(event) => {
        event.preventDefault();
        begin(filled(event.currentTarget));
      }}
    >
      {into === null ? (
        <p className="max-w-prose">
          A manuscript becomes a book: each heading of the first level begins a chapter, and every link comes
          along. Nothing is kept before you have looked it over.
        </p>
      ) : (
        <fieldset className="grid gap-2">
          <legend className="mb-1">What you bring is looked over first, and is</legend>
          {ways.map(({ value, name, about }, i) => (
            <label key={name} className="flex max-w-prose cursor-pointer items-start gap-2">
              <input type="radio" name="as" value={value} defaultChecked={i === 0} className="mt-1.5" />
              <span>
                {name}
                <span className="block text-sm text-faint">{about}</span>
              </span>
            </label>
          ))}
        </fieldset>
      )}
      <FileField
        name="manuscript"
        label={`The manuscript: ${manuscriptFormatNames}`}
        accept={manuscriptFormats.flatMap(({ endings }) => endings).join()}
        {...(given ? { given } : {})}
        onFiles={(files) => setChosen(files.length > 0)}
      />
      {into === null && (
        <ExampleDocuments
          onChoose={(file) => {
            setExample([file]);
            setChosen(true);
          }}
        />
      )}
      <FileField
        name="files"
        label="What belongs to it: its pictures, and files that it links to"
        hint="Only if they are not in the manuscript’s own file."
        multiple
        {...(dropped ? { given: dropped.files } : {})}
      />
      {problem && <Problem>{problem.message}</Problem>}
      <div className="flex gap-3">
        <Button kind="main" type="submit" disabled={!isChosen}>
          Bring it in
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

function BroughtIn({
  result: { book, chapters, step },
  into,
  onClose,
}: {
  result: Imported;
  into: string | null;
  onClose: () => void;
}) {
  if (!book) return null;
  return (
    <section aria-label="Brought in" className="mt-4 border border-hairline bg-paper p-6">
      <p className="font-serif text-lg [overflow-wrap:anywhere]">
        {step
          ? step.summary
          : into === null
            ? `“${book.title}” is on the Shelf, with ${plural(book.chapters, "chapter")} and ${plural(book.links, "link")}.`
            : `${plural(chapters, "chapter is", "chapters are")} in “${book.title}” now, behind those that it had.`}
      </p>
      <div className="mt-4 flex items-center gap-4">
        <Link to={`/books/${book.id}/write`} className="border border-blue bg-blue px-3 py-0.5 text-paper">
          Open the book
        </Link>
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
