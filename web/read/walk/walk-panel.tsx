import { BadgeCheck, TriangleAlert } from "lucide-react";
import { useRef, useState } from "react";
import { answerOf, api, type ExportWithProof } from "../../api/client";
import { useStale } from "../../api/stale";
import { useBook } from "../../book-page";
import { Button } from "../../parts/button";
import { Problem, Waiting } from "../../parts/notice";
import { Progress } from "../../parts/progress";
import { plural } from "../../parts/wording";
import { Tick } from "../reader-frame";
import { useWalk, type Step } from "./use-walk";
import type { Landed, Walker } from "./walker";

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
      <ol
        className="-mx-4 min-h-0 grow overflow-y-auto border-t border-hairline"
        aria-label="Links of the file"
      >
        {steps.map((step, i) =>
          onlyDiffering && step.difference === null ? null : (
            <StepRow
              key={i}
              step={step}
              isNext={i === next}
              follows={isUnderWay}
              onGoTo={() => walk.goTo(i)}
            />
          ),
        )}
      </ol>
    </div>
  );
}

function StepRow({
  step,
  isNext,
  follows,
  onGoTo,
}: {
  step: Step;
  isNext: boolean;
  /** Whether the list keeps the step in view. */
  follows: boolean;
  onGoTo: () => void;
}) {
  const { link, intended, start, landed, difference } = step;
  const seen = useRef(false);
  const words = intended?.text || link.words || "A link without words";
  return (
    <li
      aria-current={isNext ? "step" : undefined}
      ref={(row) => {
        if (!row || !isNext || !follows) seen.current = false;
        else if (!seen.current) {
          seen.current = true;
          row.scrollIntoView({ block: "nearest" });
        }
      }}
      className={`border-b border-hairline px-4 py-2 [content-visibility:auto] ${difference ? "border-l-4 border-l-red bg-red-wash" : isNext ? "border-l-4 border-l-blue" : ""}`}
    >
      <div className="flex items-baseline gap-2">
        {landed &&
          (difference ? (
            <TriangleAlert aria-label="Differs" size={14} className="shrink-0 self-center text-red" />
          ) : (
            <BadgeCheck aria-label="As intended" size={14} className="shrink-0 self-center" />
          ))}
        <button
          type="button"
          onClick={onGoTo}
          className="min-h-[24px] min-w-0 grow text-left font-serif underline-offset-4 [overflow-wrap:anywhere] hover:text-blue hover:underline"
        >
          {words}
        </button>
        <span className="shrink-0 text-sm text-faint">{link.on}</span>
      </div>
      {landed && (
        <>
          <div className={landed.at === "missed" ? "hidden" : "mt-1 grid grid-cols-2 gap-2"}>
            <Thumbnail picture={start} what={`Where “${words}” stands`} />
            {landed.at === "place" ? (
              <Thumbnail picture={landed.picture} what={`Where “${words}” lands`} />
            ) : (
              <p className="self-center text-sm [overflow-wrap:anywhere]">{outward(landed)}</p>
            )}
          </div>
          {landed.at === "place" && (
            <p className="mt-0.5 truncate text-sm text-faint" title={landed.words}>
              {landed.on}: {landed.words}
            </p>
          )}
          {difference && <p className="mt-0.5 text-sm text-red">{difference}</p>}
          {!intended && <p className="mt-0.5 text-sm text-faint">A link of the file’s own.</p>}
        </>
      )}
    </li>
  );
}

function outward(landed: Landed): string {
  switch (landed.at) {
    case "address":
      return landed.address;
    case "file":
      return landed.isThere ? landed.path : `${landed.path} (not there)`;
    default:
      return "Nowhere";
  }
}

function Thumbnail({ picture, what }: { picture: string | null; what: string }) {
  if (picture === null) return <span />;
  return (
    <img
      src={picture}
      alt={what}
      className="aspect-[5/2] w-full border border-hairline bg-white object-cover object-top"
    />
  );
}
