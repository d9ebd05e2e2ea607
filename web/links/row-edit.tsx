import { readOne } from "@vennet/core/destination/read-typed";
import { useState, type FormEvent } from "react";
import { answerOf, api, type LedgerRow, type LinkEdit } from "../api/client";
import { useKnownDestinations } from "../destinations/known-destinations";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { useStepDone } from "./use-step-done";

/** Changes one link from the ledger: its words, where it leads, and its description. */
export function RowEdit({ bookId, row, onDone }: { bookId: string; row: LedgerRow; onDone: () => void }) {
  const known = useKnownDestinations(bookId);
  const stepDone = useStepDone(bookId);
  const [typed, setTyped] = useState(row.destinationName);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // A cross-reference has no words of its own: it can only follow another place.
  const isReference = row.coverage === "reference";
  const isMoved = typed !== row.destinationName;
  const found = isMoved ? readOne(typed, known) : null;
  const edit = async (change: LinkEdit): Promise<void> => {
    stepDone(
      await answerOf(
        api.POST("/api/books/{bookId}/links/edits", {
          params: { path: { bookId } },
          body: { links: [{ chapterId: row.chapterId, linkId: row.linkId }], edit: change },
        }),
      ),
    );
  };
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const description = String(data.get("description") ?? "").trim() || null;
    const words = String(data.get("words") ?? row.text).trim();
    void attempt(async () => {
      if (found && !found.destination) throw new Error(found.words);
      if (isReference && found?.destination && found.destination.kind !== "place")
        throw new Error("A cross-reference follows a place in the book. Type the name of one.");
      if (words === "") throw new Error("The link needs words to stand on.");
      const change: Omit<LinkEdit, "kind"> = {
        ...(words === row.text ? {} : { text: words }),
        ...(found?.destination ? { destination: { ...found.destination } } : {}),
        ...(description === row.description || isReference ? {} : { description }),
      };
      // All of it is one step, which is undone as one.
      if (Object.keys(change).length > 0) await edit({ kind: "change", ...change });
    });
  };
  return (
    <form
      onSubmit={submit}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
      className="grid items-start gap-3 pb-2 pl-8 md:grid-cols-[1fr_2fr_1fr_auto]"
      aria-label={`Edit the link “${row.text}”`}
    >
      {!isReference && (
        <Field
          name="words"
          label={row.coverage === "words" ? "Words" : "Text alternative"}
          defaultValue={row.text}
        />
      )}
      <Field
        autoFocus
        label={isReference ? "Follows" : "Leads to"}
        value={typed}
        spellCheck={false}
        problem={problem}
        {...(found?.words ? { hint: found.words } : {})}
        onChange={(event) => setTyped(event.target.value)}
      />
      {!isReference && <Field name="description" label="Description" defaultValue={row.description ?? ""} />}
      <div className="mt-5 flex gap-3">
        <Button type="submit" kind="main" disabled={busy}>
          Save
        </Button>
        {!isReference && (
          <Button kind="quiet" disabled={busy} onClick={() => void attempt(() => edit({ kind: "remove" }))}>
            Remove link
          </Button>
        )}
        <Button kind="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
