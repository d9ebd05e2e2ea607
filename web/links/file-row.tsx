import { FileText } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { answerOf, api, sendForm, type ApiError, type CompanionFile, type FromShelf } from "../api/client";
import { offerUndo } from "../frame/undo-bar";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { fileSize, plural, shownDate } from "../parts/wording";
import { FilePreview } from "./file-preview";

/** A companion file in the list of all, with what can be done to it. */
export function FileRow({
  bookId,
  file,
  from,
  isOpen,
  onOpen,
  onReplace,
  onChanged,
}: {
  bookId: string;
  file: CompanionFile;
  /** The publication of the Shelf of which it is a file; null for one that the author brought. */
  from: FromShelf | null;
  isOpen: boolean;
  onOpen: () => void;
  onReplace: (chosen: File) => void;
  onChanged: () => void;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const [isRenaming, setRenaming] = useState(false);
  const [problem, setProblem] = useState<{ message: string; isGuard: boolean } | null>(null);
  const params = { path: { bookId, fileId: file.id } };
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await work();
      setRenaming(false);
      onChanged();
    } catch (error) {
      setProblem({ message: (error as Error).message, isGuard: (error as ApiError).code === "file-used" });
    }
  };
  const [isRenewing, setRenewing] = useState(false);
  const renew = async (): Promise<void> => {
    setRenewing(true);
    await attempt(() => answerOf(api.POST("/api/books/{bookId}/shelf/files/{fileId}", { params })));
    setRenewing(false);
  };
  const rename = (name: string): void => {
    if (name === "" || name === file.name) setRenaming(false);
    else
      void attempt(() =>
        answerOf(api.PATCH("/api/books/{bookId}/files/{fileId}", { params, body: { name } })),
      );
  };
  const remove = (used?: "yes"): void =>
    void attempt(async () => {
      const path = `/api/books/${bookId}/files/${file.id}`;
      // Kept here, to be sent back should the author want it back.
      const content = await fetch(path).then((answer) => (answer.ok ? answer.blob() : null));
      const take = async (query: { used: "yes" } | null): Promise<void> => {
        await answerOf(
          api.DELETE("/api/books/{bookId}/files/{fileId}", {
            params: { ...params, ...(query && { query }) },
          }),
        );
        onChanged();
      };
      await take(used ? { used } : null);
      if (!content) return;
      offerUndo({
        bookId,
        message: `“${file.name}” was deleted.`,
        undo: async () => {
          const form = new FormData();
          form.set("file", content, file.name);
          await sendForm(`${path}/restore`, form);
          onChanged();
        },
        redo: () => take({ used: "yes" }),
      });
    });
  return (
    <li className="border-b border-hairline px-4 py-2">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <FileText aria-hidden size={15} className="shrink-0 translate-y-0.5 text-faint" />
        {isRenaming ? (
          <input
            autoFocus
            aria-label={`New name of ${file.name}`}
            defaultValue={file.name}
            onFocus={(event) => event.target.select()}
            onBlur={(event) => rename(event.target.value.trim())}
            onKeyDown={(event) => {
              if (event.key === "Enter") rename(event.currentTarget.value.trim());
              if (event.key === "Escape") setRenaming(false);
            }}
            className="min-w-60 border-b border-blue bg-transparent"
          />
        ) : (
          <strong className="min-w-0 [overflow-wrap:anywhere]">{file.name}</strong>
        )}
        <span className="text-sm text-faint">
          {fileSize(file.size)}, {file.mediaType}, {shownDate(file.changedAt)}
        </span>
        <span className="ml-auto text-sm">
          {file.uses > 0 ? (
            <Link
              to={`/books/${bookId}/links?destination=companion:${file.id}`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              {plural(file.uses, "link leads", "links lead")} here
            </Link>
          ) : (
            <span className="text-faint">no link leads here</span>
          )}
        </span>
      </div>
      {from && (
        <p className="flex flex-wrap items-baseline gap-x-3 pl-8 text-sm">
          <span>
            A file of{" "}
            <Link
              to={`/books/${from.bookId}`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              {from.title}
            </Link>
            , on your Shelf.
            {from.isOlder && " That has gone out anew since."}
          </span>
          {from.isOlder && (
            <Button kind="quiet" className="!text-sm" disabled={isRenewing} onClick={() => void renew()}>
              {isRenewing ? "Taking the newest file …" : "Take the newest file"}
            </Button>
          )}
        </p>
      )}
      <div className="flex flex-wrap gap-x-4 pl-7">
        <Button kind="quiet" className="!text-sm" aria-expanded={isOpen} onClick={onOpen}>
          {isOpen ? "Close the preview" : "Preview"}
        </Button>
        <a
          href={`/api/books/${bookId}/files/${file.id}`}
          target="_blank"
          rel="noreferrer noopener"
          className="self-center text-sm underline decoration-edge underline-offset-4 hover:text-blue"
        >
          Open
        </a>
        <Button kind="quiet" className="!text-sm" onClick={() => setRenaming(true)}>
          Rename
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={() => picker.current?.click()}>
          Replace
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={() => remove()}>
          Delete
        </Button>
      </div>
      {problem && (
        <Problem
          action={
            problem.isGuard && (
              <Button kind="grave" onClick={() => remove("yes")}>
                Delete all the same
              </Button>
            )
          }
        >
          {problem.message}
        </Problem>
      )}
      {isOpen && <FilePreview bookId={bookId} file={file} />}
      <input
        ref={picker}
        type="file"
        hidden
        aria-label={`File to put in place of ${file.name}`}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) onReplace(chosen);
          event.target.value = "";
        }}
      />
    </li>
  );
}
