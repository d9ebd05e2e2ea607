import { FileUp } from "lucide-react";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState, type DragEvent } from "react";
import {
  answerOf,
  api,
  ApiError,
  sendForm,
  type CompanionFile,
  type StoredCompanion,
  type StoredCompanions,
} from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { useFiles, useSharedFiles } from "../destinations/known-destinations";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { Progress } from "../parts/progress";
import { fileSize, plural } from "../parts/wording";
import { useStandIns } from "../api/stand-ins";
import { FileRow } from "./file-row";
import { LinksFrame } from "./links-frame";
import { NotRead } from "../parts/not-read";

interface Upload {
  label: string;
  share: number;
  abort: AbortController;
}

/** Which companion files came from other publications of the Shelf. */
function useFromShelf(bookId: string) {
  return useQuery({
    queryKey: keys.fromShelf(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/shelf/files", { params: { path: { bookId } } })),
  });
}

/** The companion files of the book, and the shared drive's. */
export function FilesPage() {
  const book = useBook();
  const stale = useStale();
  const files = useFiles(book.id);
  const fromShelf = useFromShelf(book.id).data ?? [];
  const picker = useRef<HTMLInputElement>(null);
  const [upload, setUpload] = useState<Upload | null>(null);
  const [notes, setNotes] = useState<string[]>([]);
  const [isOver, setOver] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const [onlyUnused, setOnlyUnused] = useState(false);
  const refresh = (): void => void stale("files");

  const send = async <T,>(
    label: string,
    path: string,
    method: "POST" | "PUT",
    chosen: File[],
  ): Promise<T | null> => {
    const form = new FormData();
    for (const file of chosen) form.append("file", file);
    const abort = new AbortController();
    setNotes([]);
    setUpload({ label, share: 0, abort });
    try {
      return await sendForm<T>(path, form, {
        method,
        signal: abort.signal,
        onProgress: (share) => setUpload({ label, share, abort }),
      });
    } catch (error) {
      if (!(error instanceof ApiError && error.code === "cancelled")) setNotes([(error as Error).message]);
      return null;
    } finally {
      setUpload(null);
      refresh();
    }
  };
  const add = async (chosen: File[]): Promise<void> => {
    if (chosen.length === 0) return;
    const answer = await send<StoredCompanions>(
      `Bringing in ${plural(chosen.length, "file")}`,
      `/api/books/${book.id}/files`,
      "POST",
      chosen,
    );
    if (answer)
      setNotes([
        ...answer.refused.map(({ message }) => message),
        ...answer.stored.flatMap(({ warning }) => warning ?? []),
      ]);
  };
  const replace = async (file: CompanionFile, chosen: File): Promise<void> => {
    const answer = await send<StoredCompanion>(
      `Replacing ${file.name}`,
      `/api/books/${book.id}/files/${file.id}/content`,
      "PUT",
      [chosen],
    );
    if (answer?.warning) setNotes([answer.warning]);
  };
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void add([...event.dataTransfer.files]);
  };
  const all = files.data ?? [];
  const shown = onlyUnused ? all.filter(({ uses }) => uses === 0) : all;
  return (
    <LinksFrame>
      <div
        className={`h-full overflow-y-auto p-5 ${isOver ? "bg-blue-wash" : ""}`}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
      >
        <div className="mx-auto max-w-5xl">
          <div className="flex flex-wrap items-center gap-4">
            <h1 className="font-serif text-2xl">Companion files</h1>
            <Button kind="main" onClick={() => picker.current?.click()}>
              <FileUp aria-hidden size={15} /> Bring files in
            </Button>
            <span className="text-faint">or drop them here; up to 50 MB each</span>
            <label className="ml-auto flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-blue"
                checked={onlyUnused}
                onChange={(event) => setOnlyUnused(event.target.checked)}
              />
              Only those that no link leads to
            </label>
          </div>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            aria-label="Files to bring in"
            onChange={(event) => {
              void add([...(event.target.files ?? [])]);
              event.target.value = "";
            }}
          />
          {upload && (
            <div className="mt-3 flex items-center gap-4 border border-hairline bg-paper px-4 py-2">
              <span className="shrink-0">{upload.label} …</span>
              <Progress label={upload.label} done={Math.round(upload.share * 100)} total={100} />
              <Button kind="quiet" onClick={() => upload.abort.abort()}>
                Cancel
              </Button>
            </div>
          )}
          {notes.length > 0 && <Problem>{notes.join("\n")}</Problem>}
          <NotRead of={files} />
          {files.isPending && <Waiting what="Reading the files" />}
          {files.data && shown.length === 0 && (
            <p className="mt-4 border border-hairline bg-paper p-6">
              {all.length === 0
                ? "No file travels with this book yet. Plans, tables and letters that readers should be able to open belong here."
                : "Every file has a link that leads to it."}
            </p>
          )}
          <ul className="mt-4 border-t border-hairline bg-paper">
            {shown.map((file) => (
              <FileRow
                key={file.id}
                bookId={book.id}
                file={file}
                from={fromShelf.find(({ fileId }) => fileId === file.id) ?? null}
                isOpen={open === file.id}
                onOpen={() => setOpen(open === file.id ? null : file.id)}
                onReplace={(chosen) => void replace(file, chosen)}
                onChanged={refresh}
              />
            ))}
          </ul>
          <SharedDrive bookId={book.id} />
        </div>
      </div>
    </LinksFrame>
  );
}

const audiences = { owner: "only its owner", group: "", anyone: "anyone with the address" };

function SharedDrive({ bookId }: { bookId: string }) {
  const shared = useSharedFiles(bookId);
  const standIns = useStandIns();
  if (!shared.data || shared.data.length === 0) return <NotRead of={shared} />;
  const front = standIns?.web("https://drive.hesterley.example/");
  return (
    <section className="mt-8">
      <div className="flex flex-wrap items-baseline gap-4">
        <h2 className="font-serif text-xl">On the shared drive</h2>
        {front && (
          <a
            href={front}
            target="_blank"
            rel="noreferrer noopener"
            className="text-sm underline decoration-edge underline-offset-4 hover:text-blue"
          >
            Open the stand-in drive
          </a>
        )}
      </div>
      <p className="text-faint">They stay where they are; a link to one works for whoever may open it.</p>
      <table className="mt-2 w-full bg-paper text-left text-[0.93rem]">
        <thead className="text-sm text-faint">
          <tr>
            {["File", "Folder", "Size", "Who may open it"].map((head) => (
              <th key={head} scope="col" className="border-b border-edge px-3 py-1 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shared.data.map(({ name, folder, size, address, audience, group }) => (
            <tr key={address}>
              <td className="border-b border-hairline px-3 py-1">{name}</td>
              <td className="border-b border-hairline px-3 py-1">{folder}</td>
              <td className="border-b border-hairline px-3 py-1 tabular-nums">{fileSize(size)}</td>
              <td className={`border-b border-hairline px-3 py-1 ${audience === "anyone" ? "" : "text-red"}`}>
                {audience === "group" ? `only ${group}` : audiences[audience]}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
