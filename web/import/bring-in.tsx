import { manuscriptFormatNames, manuscriptFormats } from "@vennet/core/import/formats";
import { useId, useState } from "react";
import { Link } from "react-router";
import type { Imported } from "../api/client";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { plural } from "../parts/wording";
import { useImport } from "./use-import";

/** Brings a manuscript in, as a book or as new chapters of one, and lists what could not be taken over. */
export function BringIn({
  into = null,
  onClose,
}: {
  /** The book that it is to be chapters of; null for one of its own. */
  into?: string | null;
  onClose: () => void;
}) {
  const [manuscript, setManuscript] = useState<File | null>(null);
  const { underWay, result, problem, begin, cancel } = useImport(into);
  if (result) return <BroughtIn result={result} into={into} onClose={onClose} />;
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
  return (
    <form
      className="mt-4 grid gap-5 border border-hairline bg-paper p-6"
      onSubmit={(event) => {
        event.preventDefault();
        const form = new FormData(event.currentTarget);
        // Empty fields are left out, so that the server does not take them for answers.
        for (const [name, value] of [...form]) {
          if (value === "" || (value instanceof File && value.size === 0 && value.name === ""))
            form.delete(name);
        }
        begin(form);
      }}
    >
      <p className="max-w-prose">
        {into === null
          ? "A manuscript becomes a book: each heading of the first level begins a chapter, and every link comes along."
          : "A manuscript becomes chapters behind those that the book has: each heading of the first level begins one, and every link comes along."}
      </p>
      <FileField
        name="manuscript"
        label={`The manuscript: ${manuscriptFormatNames}`}
        accept={manuscriptFormats.flatMap(({ endings }) => endings).join()}
        onFiles={(files) => setManuscript(files[0] ?? null)}
      />
      <FileField
        name="pictures"
        label="Its pictures, if it has any (PNG, JPEG, GIF)"
        accept="image/png,image/jpeg,image/gif"
        multiple
      />
      {into === null && (
        <Field
          name="title"
          label="Title of the book"
          hint="If you leave it empty, the first heading is the title."
        />
      )}
      <Field
        name="baseAddress"
        label="Address from which its relative links start"
        placeholder="https://"
        hint="Only if the manuscript links to files beside it, and these lie on the web."
        problem={problem?.field === "baseAddress" ? problem.message : null}
      />
      {problem && problem.field !== "baseAddress" && <Problem>{problem.message}</Problem>}
      <div className="flex gap-3">
        <Button kind="main" type="submit" disabled={!manuscript}>
          Bring it in
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

function FileField({
  label,
  onFiles,
  ...rest
}: {
  name: string;
  label: string;
  accept: string;
  multiple?: boolean;
  onFiles?: (files: File[]) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-faint">
        {label}
      </label>
      <input
        id={id}
        type="file"
        {...rest}
        onChange={(event) => onFiles?.([...(event.target.files ?? [])])}
        className="mt-1 w-full file:mr-3 file:border file:border-edge file:bg-transparent file:px-3 file:py-0.5 file:text-ink"
      />
    </div>
  );
}

function BroughtIn({
  result: { book, chapters, leftOut },
  into,
  onClose,
}: {
  result: Imported;
  into: string | null;
  onClose: () => void;
}) {
  return (
    <section aria-label="Brought in" className="mt-4 border border-hairline bg-paper p-6">
      <p className="font-serif text-lg [overflow-wrap:anywhere]">
        {into === null
          ? `“${book.title}” is on the Shelf, with ${plural(book.chapters, "chapter")} and ${plural(book.links, "link")}.`
          : `${plural(chapters, "chapter is", "chapters are")} in “${book.title}” now, behind those that it had.`}
      </p>
      {leftOut.length > 0 && (
        <>
          <h2 className="mt-4 font-semibold">
            {plural(leftOut.length, "thing")} could not be taken over as{" "}
            {leftOut.length === 1 ? "it was" : "they were"}
          </h2>
          <div
            className="mt-2 max-h-80 overflow-y-auto border-y border-hairline"
            tabIndex={0}
            role="region"
            aria-label="What could not be taken over"
          >
            <table className="w-full text-sm">
              <thead>
                <tr className="text-left text-faint">
                  <th className="py-1 pr-4 font-normal">Where</th>
                  <th className="py-1 pr-4 font-normal">What</th>
                  <th className="py-1 font-normal">What became of it</th>
                </tr>
              </thead>
              <tbody>
                {leftOut.map((item, i) => (
                  <tr key={i} className="border-t border-hairline align-top">
                    <td className="py-1 pr-4 tabular-nums">{item.where ?? "–"}</td>
                    <td className="py-1 pr-4 [overflow-wrap:anywhere]">{item.what}</td>
                    <td className="py-1">{item.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
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
