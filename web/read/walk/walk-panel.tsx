import { useState } from "react";
import { answerOf, api, type ExportWithProof } from "../../api/client";
import { useStale } from "../../api/stale";
import { useBook } from "../../book-page";
import { Button } from "../../parts/button";
import { Problem, Waiting } from "../../parts/notice";
import { Progress } from "../../parts/progress";
import { plural } from "../../parts/wording";
import { Tick } from "../reader-frame";
import { StepList } from "./step-list";
import { useWalk } from "./use-walk";
import type { Walker } from "./walker";

/** The robot that follows every link of the file in its reader, and what it found. */
export function WalkPanel({ walker, proof }: { walker: Walker; proof: ExportWithProof }) {
  const { id: bookId } = useBook();
  const stale = useStale();
  const [keepProblem, setKeepProblem] = useState<string | null>(null);
  const walk = useWalk(walker, proof, (steps) => {
    const differing = steps.flatMap(({ link: { where, words }, intended, difference }) =>
      difference === null ? [] : [{ where, text: (intended?.text || words).slice(0, 1_000), difference }],
    );
    const params = { path: { bookId, exportId: proof.id } };
    answerOf(
      api.PUT("/api/books/{bookId}/exports/{exportId}/walk", {
        params,
        body: { walked: steps.length, differing },
      }),
    ).then(
      () => stale("export"),
      (error: unknown) => setKeepProblem(`What the walk came to is not kept: ${(error as Error).message}`),
    );
  });
  const [onlyDiffering, setOnlyDiffering] = useState(false);
  const { steps, next, isUnderWay } = walk;
  const walked = steps.filter(({ landed }) => landed !== null);
  const differing = walked.filter(({ difference }) => difference !== null);
  const isDone = steps.length > 0 && walked.length === steps.length;
  if (walk.problem === null && steps.length === 0)
    return <Waiting what="Looking for the links of the file" />;
  return (
    <div className="flex h-full flex-col gap-2">
      <h2 className="font-serif text-lg">Walk the links</h2>
      {walk.problem && <Problem>{walk.problem}</Problem>}
      {keepProblem && <Problem>{keepProblem}</Problem>}
      <div className="flex flex-wrap items-center gap-2">
        {isUnderWay ? (
          <Button onClick={walk.pause}>Pause</Button>
        ) : (
          <Button kind="main" onClick={walk.begin}>
            {isDone ? "Walk again" : next === 0 ? "Walk" : "Walk on"}
          </Button>
        )}
        <Button disabled={isUnderWay} onClick={walk.stepOn}>
          One step
        </Button>
        <Tick label="Only what differs" isOn={onlyDiffering} onChange={setOnlyDiffering} />
      </div>
      <Progress label="Links walked" done={walked.length} total={steps.length} />
      <p role="status" className={differing.length > 0 ? "font-semibold text-red" : ""}>
        {walked.length} of {plural(steps.length, "link")} walked
        {walked.length > 0 &&
          (differing.length > 0 ? `, ${differing.length} not as intended` : ", all as intended")}
      </p>
      <StepList steps={onlyDiffering ? differing : steps} walk={walk} />
    </div>
  );
}
