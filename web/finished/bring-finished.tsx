import { useState, type FormEvent } from "react";
import { Link } from "react-router";
import { sendForm, type Job } from "../api/client";
import { endOf } from "../api/follow-job";
import { useStale } from "../api/stale";
import { FirstPage } from "./first-page";
import { useLookAtFiles } from "./look-at-files";
import { FileField } from "../import/file-field";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";

/** What became of one of the files that were brought. */
interface Came {
  name: string;
  bookId: string | null;
  message: string;
}

const steps = 100;
/** Files of ours to try it with; demo/finished-file.mjs writes them. */
const examples = [
  ["a leaflet (PDF)", "huts-of-the-outer-sands.pdf"],
  ["an almanac (e-book)", "a-year-of-low-water.epub"],
] as const;

/** Brings finished files in: PDFs and e-books whose links are worked on in place. Of several, one after the other. */
export function BringFinished({
  dropped,
  onClose,
}: {
  dropped: readonly File[] | null;
  onClose: () => void;
}) {
  const stale = useStale();
  const [given, setGiven] = useState(dropped);
  const [chosen, setChosen] = useState<readonly File[]>(dropped ?? []);
  const [problem, setProblem] = useState<string | null>(null);
  const [underWay, setUnderWay] = useState<{ message: string; done: number; stop: () => void } | null>(null);
  const [came, setCame] = useState<readonly Came[]>([]);
  const { first, locks } = useLookAtFiles(chosen);
  const [passwords, setPasswords] = useState<ReadonlyMap<File, string>>(new Map());

  const bring = async (
    file: File,
    leaving: AbortSignal,
    tell: (message: string, done: number) => void,
  ): Promise<Came> => {
    const form = new FormData();
    form.set("file", file);
    form.set("password", passwords.get(file) ?? "");
    const name = file.name;
    try {
      const begun = await sendForm<Job>("/api/books/finished", form, {
        onProgress: (share) => tell(`Sending ${name}`, Math.round(share * steps)),
        signal: leaving,
      });
      const end = await endOf(begun, leaving, (job) =>
        tell(`${name}: ${job.message || "waiting"}`, job.done),
      );
      return { name, bookId: end.state === "done" ? end.bookId : null, message: end.message || "Cancelled." };
    } catch (error) {
      return { name, bookId: null, message: (error as Error).message };
    }
  };
  const tryOurs = async (example: string): Promise<void> => {
    try {
      const answer = await fetch(`/examples/${example}`);
      if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
      const file = new File([await answer.blob()], example);
      setGiven([file]);
      setChosen([file]);
    } catch (error) {
      setProblem(`The file could not be had: ${(error as Error).message}`);
    }
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const leaving = new AbortController();
    const all: Came[] = [];
    for (const file of chosen) {
      if (leaving.signal.aborted) break;
      all.push(
        await bring(file, leaving.signal, (message, done) =>
          setUnderWay({ message, done, stop: () => leaving.abort() }),
        ),
      );
      setCame([...all]);
      void stale("books");
    }
    setUnderWay(null);
  };

  return (
    <form
      aria-label="Bring in a finished file"
      className="mt-4 grid gap-4 border border-hairline bg-paper p-6"
      onSubmit={(event) => void submit(event)}
    >
      <p className="max-w-prose">
        A finished file is a PDF or an e-book (EPUB) that exists already. Its links are put in, changed and
        checked on its pages; everything else of it stays as it is, and nothing is written before you save a
        version.
      </p>
      <div className="flex gap-6">
        <div className="grid min-w-0 grow content-start gap-4">
          {underWay ? (
            <div>
              <div className="mb-2 flex items-center justify-between gap-2">
                <span role="status" className="min-w-0 truncate">
                  {underWay.message} …
                </span>
                <Button onClick={underWay.stop}>Cancel</Button>
              </div>
              <Progress label="Bringing in" done={underWay.done} total={steps} />
            </div>
          ) : (
            came.length === 0 && (
              <>
                <FileField
                  name="file"
                  label="PDFs and e-books"
                  accept=".pdf,.epub,application/pdf,application/epub+zip"
                  multiple
                  {...(given ? { given } : {})}
                  onFiles={setChosen}
                />
                <p className="flex flex-wrap items-baseline gap-x-3 text-sm text-faint">
                  To see what it does, try it with one of ours:
                  {examples.map(([words, example]) => (
                    <Button key={example} kind="quiet" onClick={() => void tryOurs(example)}>
                      {words}
                    </Button>
                  ))}
                </p>
                {problem && <Problem>{problem}</Problem>}
                {[...locks].map(([file, lock], i) => (
                  <label key={i} className="grid max-w-md gap-1">
                    <span className="[overflow-wrap:anywhere]">
                      {lock === "opens"
                        ? `The password with which ${file.name} opens`
                        : `${file.name} may be changed by its owner alone: the owner’s password`}
                    </span>
                    <input
                      type="password"
                      autoComplete="off"
                      value={passwords.get(file) ?? ""}
                      onChange={(event) => setPasswords(new Map(passwords).set(file, event.target.value))}
                      className="border border-edge bg-transparent px-2 py-1"
                    />
                  </label>
                ))}
                {locks.size > 0 && (
                  <p className="text-sm text-faint">
                    It is kept with the file, so that its pages can be shown and versions be saved.
                  </p>
                )}
              </>
            )
          )}
          {came.length > 0 && (
            <ul className="grid gap-1">
              {came.map(({ name, bookId, message }, i) => (
                <li key={i} className="[overflow-wrap:anywhere]">
                  {bookId ? (
                    <span role="status">
                      <Link
                        to={`/books/${bookId}/write`}
                        className="font-semibold underline underline-offset-4"
                      >
                        {name}
                      </Link>
                      : {message}
                    </span>
                  ) : (
                    <Problem>{`${name}: ${message}`}</Problem>
                  )}
                </li>
              ))}
            </ul>
          )}
        </div>
        {first && <FirstPage file={first} />}
      </div>
      <div className="flex gap-3">
        {came.length === 0 && (
          <Button kind="main" type="submit" disabled={chosen.length === 0 || underWay !== null}>
            Bring it in
          </Button>
        )}
        <Button kind="quiet" onClick={onClose}>
          {came.length === 0 ? "Cancel" : "Close"}
        </Button>
      </div>
    </form>
  );
}
