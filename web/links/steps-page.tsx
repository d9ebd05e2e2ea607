import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Step } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { EmptyPage } from "../parts/empty-page";
import { Problem, Waiting } from "../parts/notice";
import { plural, shownDate } from "../parts/wording";
import { LinksFrame } from "./links-frame";
import { NotRead } from "../parts/not-read";

/** The actions over many links, the newest first, each of which can be undone as one. */
export function StepsPage() {
  const book = useBook();
  const stale = useStale();
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [undoing, setUndoing] = useState<string | null>(null);
  const steps = useQuery({
    queryKey: keys.steps(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/steps", { params: { path: { bookId: book.id } } })),
    staleTime: 0,
  });
  const undo = async (step: Step): Promise<void> => {
    setUndoing(step.id);
    setProblem(null);
    try {
      const { undone, left } = await answerOf(
        api.POST("/api/books/{bookId}/steps/{stepId}/undo", {
          params: { path: { bookId: book.id, stepId: step.id } },
        }),
      );
      setSaid(
        `${plural(undone, "link is", "links are")} as before${left > 0 ? `; ${left} had been changed since and stay` : ""}.`,
      );
    } catch (error) {
      setProblem((error as Error).message);
    }
    setUndoing(null);
    await stale("step");
  };
  return (
    <LinksFrame>
      <div className="h-full overflow-y-auto p-5">
        <div className="mx-auto max-w-4xl">
          <h1 className="font-serif text-2xl">What was done to many links at once</h1>
          {said && <p role="status">{said}</p>}
          {problem && <Problem>{problem}</Problem>}
          <NotRead of={steps} />
          {steps.isPending && <Waiting what="Reading what was done" />}
          {steps.data?.length === 0 && (
            <EmptyPage next="Choose links in the ledger" to={`/books/${book.id}/links`}>
              What changes many links at once is kept here, and can be undone later too. Nothing has yet.
            </EmptyPage>
          )}
          <ol className="mt-4 border-t border-hairline bg-paper">
            {steps.data?.map((step) => (
              <li
                key={step.id}
                className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline px-4 py-2"
              >
                <span className={step.undoneAt ? "text-faint line-through" : ""}>{step.summary}</span>
                <span className="text-sm text-faint">
                  {shownDate(step.createdAt)}, {plural(step.chapters.length, "chapter")}
                </span>
                <span className="ml-auto">
                  {step.undoneAt ? (
                    <span className="text-sm text-faint">undone {shownDate(step.undoneAt)}</span>
                  ) : (
                    <Button disabled={undoing !== null} onClick={() => void undo(step)}>
                      {undoing === step.id ? "Undoing …" : "Undo"}
                    </Button>
                  )}
                </span>
              </li>
            ))}
          </ol>
        </div>
      </div>
    </LinksFrame>
  );
}
