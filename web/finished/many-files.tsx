import { zip } from "fflate";
import { useState } from "react";
import { Link } from "react-router";
import { answerOf, api, type Book, type Step } from "../api/client";
import { endOf } from "../api/follow-job";
import { useStale } from "../api/stale";
import { offerUndo } from "../frame/undo-bar";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Progress } from "../parts/progress";
import { plural } from "../parts/wording";

/** What was told of each file, by its id. */
type Told = ReadonlyMap<string, { words: string; isWrong: boolean }>;

/** Does the same to many finished files: a host exchanged in all of them, their addresses checked, versions saved. */
export function ManyFiles({ files, onClose }: { files: readonly Book[]; onClose: () => void }) {
  const stale = useStale();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  /** How many links change in each file, where that was looked at for these hosts. */
  const [changing, setChanging] = useState<ReadonlyMap<string, number> | null>(null);
  const [told, setTold] = useState<Told>(new Map());
  const [underWay, setUnderWay] = useState<{
    what: string;
    done: number;
    total: number;
    stop: AbortController;
  } | null>(null);
  const chosen = files.filter(({ id }) => !left.has(id));
  const edit = { kind: "host" as const, from: from.trim(), to: to.trim() };
  const isHost = edit.from.includes(".") && edit.to.includes(".");
  const count = [...(changing?.values() ?? [])].reduce((sum, one) => sum + one, 0);

  /** Does something to each chosen file, one after the other, and tells of each what came of it. */
  const each = async (
    what: string,
    work: (file: Book, signal: AbortSignal) => Promise<string>,
    of: readonly Book[] = chosen,
  ): Promise<void> => {
    const stop = new AbortController();
    const all = new Map<string, { words: string; isWrong: boolean }>();
    setTold(all);
    for (const [done, file] of of.entries()) {
      if (stop.signal.aborted) break;
      setUnderWay({ what, done, total: of.length, stop });
      try {
        all.set(file.id, { words: await work(file, stop.signal), isWrong: false });
      } catch (error) {
        const words = stop.signal.aborted ? "Cancelled." : (error as Error).message;
        all.set(file.id, { words, isWrong: !stop.signal.aborted });
      }
      setTold(new Map(all));
    }
    setUnderWay(null);
    void stale("books");
  };

  const look = async (): Promise<void> => {
    const counts = new Map<string, number>();
    await each("Looking", async ({ id }) => {
      const preview = await answerOf(
        api.POST("/api/books/{bookId}/links/edits/preview", {
          params: { path: { bookId: id } },
          body: { matching: {}, edit },
        }),
      );
      counts.set(id, preview.changing);
      return plural(preview.changing, "link changes", "links change");
    });
    setChanging(counts);
  };
  const apply = async (): Promise<void> => {
    const steps: { id: string; step: Step }[] = [];
    const those = chosen.filter(({ id }) => (changing?.get(id) ?? 0) > 0);
    await each(
      "Changing",
      async ({ id }) => {
        const step = await answerOf(
          api.POST("/api/books/{bookId}/links/edits", {
            params: { path: { bookId: id } },
            body: { matching: {}, edit },
          }),
        );
        steps.push({ id, step });
        return step.summary;
      },
      those,
    );
    setChanging(null);
    if (steps.length > 0)
      offerUndo({
        bookId: "",
        message: `${edit.from} became ${edit.to} in ${plural(steps.length, "file")}.`,
        undo: async () => {
          for (const { id, step } of steps)
            await answerOf(
              api.POST("/api/books/{bookId}/steps/{stepId}/undo", {
                params: { path: { bookId: id, stepId: step.id } },
              }),
            );
          await stale("step");
          setTold(new Map());
          return `The links of ${plural(steps.length, "file")} are as before.`;
        },
      });
  };
  const check = (): Promise<void> =>
    each("Beginning to check", async ({ id }) => {
      await answerOf(
        api.POST("/api/books/{bookId}/reach", { params: { path: { bookId: id } }, body: { which: "due" } }),
      );
      return "Its addresses are being checked.";
    });
  const save = (): Promise<void> =>
    each("Saving", async ({ id }, signal) => {
      const begun = await answerOf(
        api.POST("/api/books/{bookId}/finished/versions", { params: { path: { bookId: id } } }),
      );
      const end = await endOf(begun, signal);
      if (end.state === "failed") throw new Error(end.message);
      return end.message || "Cancelled.";
    });
  const download = async (): Promise<void> => {
    const content: Record<string, Uint8Array> = {};
    await each("Fetching", async ({ id }, signal) => {
      const params = { path: { bookId: id } };
      const [last] = await answerOf(api.GET("/api/books/{bookId}/exports", { params }));
      if (!last) return "No version of it was saved.";
      const answer = await fetch(`/api/books/${id}/exports/${last.id}/file`, { signal });
      if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
      let name = last.fileName;
      for (let i = 2; name in content; i++) name = last.fileName.replace(/(\.\w+)?$/, ` ${i}$1`);
      content[name] = new Uint8Array(await answer.arrayBuffer());
      return `In the archive as ${name}.`;
    });
    if (Object.keys(content).length === 0) return;
    const bytes = await new Promise<Uint8Array>((resolve, reject) =>
      zip(content, { level: 0 }, (error, all) => (error ? reject(error) : resolve(all))),
    );
    const address = URL.createObjectURL(new Blob([bytes as BlobPart], { type: "application/zip" }));
    const link = document.createElement("a");
    link.href = address;
    link.download = "finished-files.zip";
    link.click();
    URL.revokeObjectURL(address);
  };

  const isBusy = underWay !== null;
  const isNone = chosen.length === 0;
  return (
    <section aria-labelledby="many-files" className="mt-4 grid gap-4 border border-hairline bg-paper p-6">
      <div className="flex items-baseline gap-3">
        <h2 id="many-files" className="mr-auto font-serif text-xl font-semibold">
          All finished files at once
        </h2>
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      <ul
        className="max-h-60 overflow-y-auto border-y border-hairline"
        tabIndex={0}
        aria-label="Finished files"
      >
        {files.map(({ id, title, finished, links }) => (
          <li key={id} className="grid gap-x-4 py-0.5 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
            <label className="flex min-h-7 min-w-0 items-center gap-2">
              <input
                type="checkbox"
                className="size-4 shrink-0 accent-blue"
                checked={!left.has(id)}
                disabled={isBusy}
                onChange={() => {
                  const next = new Set(left);
                  if (!next.delete(id)) next.add(id);
                  setLeft(next);
                  setChanging(null);
                }}
              />
              <span className="min-w-0 truncate" title={title}>
                {finished?.fileName}
              </span>
              <span className="shrink-0 text-sm text-faint">{plural(links, "link")}</span>
            </label>
            {told.has(id) && (
              <span className={`self-center text-sm ${told.get(id)!.isWrong ? "text-red" : "text-faint"}`}>
                {told.get(id)!.words}{" "}
                <Link to={`/books/${id}/write`} className="underline underline-offset-4">
                  Open
                </Link>
              </span>
            )}
          </li>
        ))}
      </ul>
      {underWay && (
        <div>
          <div className="mb-1 flex items-center justify-between">
            <span role="status">
              {underWay.what} … {underWay.done} of {underWay.total}
            </span>
            <Button onClick={() => underWay.stop.abort()}>Cancel</Button>
          </div>
          <Progress label={underWay.what} done={underWay.done} total={underWay.total} />
        </div>
      )}
      <form
        aria-label="Exchange a host"
        className="grid items-end gap-4 md:grid-cols-[minmax(0,14rem)_minmax(0,14rem)_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          void (changing ? apply() : look());
        }}
      >
        <Field
          label="This host"
          value={from}
          spellCheck={false}
          onChange={(event) => {
            setFrom(event.target.value);
            setChanging(null);
          }}
        />
        <Field
          label="becomes"
          value={to}
          spellCheck={false}
          onChange={(event) => {
            setTo(event.target.value);
            setChanging(null);
          }}
        />
        <Button
          type="submit"
          className="justify-self-start"
          disabled={isBusy || isNone || !isHost || (changing !== null && count === 0)}
        >
          {changing ? `Change ${plural(count, "link")}` : "Look what would change"}
        </Button>
      </form>
      <div className="flex flex-wrap gap-3 border-t border-hairline pt-3">
        <Button disabled={isBusy || isNone} onClick={() => void check()}>
          Check the addresses
        </Button>
        <Button disabled={isBusy || isNone} onClick={() => void save()}>
          Save new versions
        </Button>
        <Button disabled={isBusy || isNone} onClick={() => void download()}>
          Download the last versions (ZIP)
        </Button>
      </div>
    </section>
  );
}
