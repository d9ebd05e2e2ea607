import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState, type ReactNode } from "react";
import { answerOf, api, type LinkEdit } from "../api/client";
import { keys } from "../api/keys";
import { useKnownDestinations } from "../destinations/known-destinations";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem, Waiting } from "../parts/notice";
import { plural } from "../parts/wording";
import type { Filter } from "./ledger-view";
import { readOne } from "@vennet/core/destination/read-typed";
import { useStepDone } from "./use-step-done";
import { useTold } from "../parts/not-read";

/** Links that were chosen: by name, or all that a filter matches. */
export type Chosen = { links: { chapterId: string; linkId: string }[] } | { matching: Filter };

type Kind = "retarget" | "host" | "base" | "describe" | "remove";

const kinds: [Kind, string][] = [
  ["retarget", "Lead elsewhere"],
  ["host", "Exchange a host"],
  ["base", "Start from a web address"],
  ["describe", "Describe"],
  ["remove", "Remove the links"],
];

/** Changes all chosen links at once, after showing what will become of each. */
export function BulkEdit({ bookId, chosen, onDone }: { bookId: string; chosen: Chosen; onDone: () => void }) {
  const known = useKnownDestinations(bookId);
  const stepDone = useStepDone(bookId);
  const [kind, setKind] = useState<Kind | null>(null);
  const [typed, setTyped] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [base, setBase] = useState("");
  const [description, setDescription] = useState("");
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const found = kind === "retarget" ? readOne(typed, known) : null;
  const edit = useDeferredValue(editOf());
  const preview = useQuery({
    queryKey: keys.editPreview(bookId, chosen, edit),
    queryFn: () =>
      answerOf(
        api.POST("/api/books/{bookId}/links/edits/preview", {
          params: { path: { bookId } },
          body: { ...chosen, edit: edit! },
        }),
      ),
    enabled: edit !== null,
    retry: false,
    staleTime: 0,
    gcTime: 0,
  });

  useTold(preview.error);

  function editOf(): LinkEdit | null {
    switch (kind) {
      case "retarget":
        return found?.destination ? { kind, destination: { ...found.destination } } : null;
      case "host":
        return from.includes(".") && to.includes(".") ? { kind, from, to } : null;
      case "base":
        return /^https?:\/\/[^/\s]+/i.test(base.trim()) ? { kind, base: base.trim() } : null;
      case "describe":
        return { kind, description: description.trim() || null };
      case "remove":
        return { kind };
      case null:
        return null;
    }
  }
  const apply = async (): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      const step = await answerOf(
        api.POST("/api/books/{bookId}/links/edits", {
          params: { path: { bookId } },
          body: { ...chosen, edit: edit! },
        }),
      );
      stepDone(step);
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  const fields: Record<Kind, ReactNode> = {
    retarget: (
      <Field
        autoFocus
        label="Where they lead then: an address, or a file’s or place’s name"
        value={typed}
        spellCheck={false}
        hint={found?.words ?? ""}
        onChange={(event) => setTyped(event.target.value)}
      />
    ),
    host: (
      <div className="grid grid-cols-2 gap-4">
        <Field
          autoFocus
          label="This host"
          value={from}
          spellCheck={false}
          onChange={(event) => setFrom(event.target.value)}
        />
        <Field
          label="becomes"
          value={to}
          spellCheck={false}
          onChange={(event) => setTo(event.target.value)}
        />
      </div>
    ),
    base: (
      <Field
        autoFocus
        label="Links to files that were not brought along start from"
        placeholder="https://"
        value={base}
        spellCheck={false}
        hint="The address of the page or folder that the manuscript was on the web."
        onChange={(event) => setBase(event.target.value)}
      />
    ),
    describe: (
      <Field
        autoFocus
        label="Description for all of them; empty takes theirs away"
        value={description}
        onChange={(event) => setDescription(event.target.value)}
      />
    ),
    remove: <p>The links go, their words stay.</p>,
  };
  const count = "links" in chosen ? plural(chosen.links.length, "link") : "All links shown are";
  return (
    <section
      aria-label="Chosen links"
      className="max-h-[55%] shrink-0 overflow-y-auto border-b border-blue bg-paper px-4 py-2"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <strong>{count} chosen</strong>
        {kinds.map(([one, words]) => (
          <Button
            key={one}
            kind={kind === one ? "main" : "plain"}
            aria-pressed={kind === one}
            onClick={() => setKind(kind === one ? null : one)}
          >
            {words}
          </Button>
        ))}
        <Button kind="quiet" className="ml-auto" onClick={onDone}>
          Choose none
        </Button>
      </div>
      {kind && (
        <div className="mt-2 grid gap-4 pb-1 md:grid-cols-[minmax(0,22rem)_minmax(0,1fr)]">
          <div className="grid content-start gap-3">
            {fields[kind]}
            {(problem ?? preview.error?.message) && <Problem>{problem ?? preview.error!.message}</Problem>}
            <Button
              kind="main"
              className="justify-self-start"
              disabled={busy || !preview.data || preview.data.changing === 0 || edit === null}
              onClick={() => void apply()}
            >
              {busy
                ? "Changing …"
                : preview.data && edit
                  ? `Change ${plural(preview.data.changing, "link")}`
                  : "Change"}
            </Button>
          </div>
          <div className="min-w-0">
            {preview.isFetching && !preview.data && <Waiting what="Looking what would change" />}
            {edit && preview.data && (
              <>
                <p className="text-sm text-faint" role="status">
                  {plural(preview.data.changing, "link changes", "links change")}
                  {preview.data.unchanged > 0 && `, ${preview.data.unchanged} stay as they are`}
                  {preview.data.changing > preview.data.rows.length &&
                    `; the first ${preview.data.rows.length} are shown`}
                  .
                </p>
                <ul
                  className="mt-1 max-h-56 overflow-y-auto border-t border-hairline text-[0.88rem]"
                  tabIndex={0}
                >
                  {preview.data.rows.map((row) => (
                    <li key={`${row.chapterId} ${row.linkId}`} className="border-b border-hairline py-1">
                      <span className="font-serif">{row.text}</span>{" "}
                      <span className="text-faint">in {row.chapter}</span>
                      <span className="block font-mono text-[0.8rem] [overflow-wrap:anywhere]">
                        <del className="text-red">{row.before || "no description"}</del>
                        {row.after && (
                          <>
                            {" "}
                            <span aria-hidden>→</span>{" "}
                            <ins className="text-blue no-underline">{row.after}</ins>
                          </>
                        )}
                      </span>
                    </li>
                  ))}
                </ul>
              </>
            )}
          </div>
        </div>
      )}
    </section>
  );
}
