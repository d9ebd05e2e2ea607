import { manuscriptFormatNames, manuscriptFormats } from "@vennet/core/import/formats";
import { useState } from "react";
import { Link } from "react-router";
import type { Imported } from "../api/client";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { plural } from "../parts/wording";
import type { DroppedFiles } from "./dropped-files";
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
  const isChosen = chosen ?? (dropped?.manuscript.length ?? 0) > 0;
  return (
    <form
      className="mt-4 grid gap-5 border border-hairline bg-paper p-6"
      onSubmit={(event) => {
        event.preventDefault();
        begin(filled(event.currentTarget));
      }}
    >
      <p className="max-w-prose">
        {into === null
          ? "A manuscript becomes a book: each heading of the first level begins a chapter, and every link comes along."
          : "A manuscript becomes chapters behind those that the book has: each heading of the first level begins one, and every link comes along."}{" "}
        Nothing is kept before you have looked it over.
      </p>
      <FileField
        name="manuscript"
        label={`The manuscript: ${manuscriptFormatNames}`}
        accept={manuscriptFormats.flatMap(({ endings }) => endings).join()}
        {...(dropped ? { given: dropped.manuscript } : {})}
        onFiles={(files) => setChosen(files.length > 0)}
      />
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
  result: { book, chapters },
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
        {into === null
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
