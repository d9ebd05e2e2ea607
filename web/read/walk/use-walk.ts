import { useEffect, useRef, useState } from "react";
import type { ExportWithProof } from "../../api/client";
import { differenceOf, intentionsOf, unwalked } from "./judge-step";
import type { FileLink, Landed, Walker } from "./walker";

/** One link of the walk, with what was found as far as it has been walked. */
export interface Step {
  link: FileLink;
  /** What the manuscript means by it; null for a link that the file has by itself. */
  intended: ExportWithProof["rows"][number] | null;
  start: string | null;
  landed: Landed | null;
  difference: string | null;
}

export interface Walk {
  steps: Step[];
  /** The step that is under way or comes next. */
  next: number;
  isUnderWay: boolean;
  problem: string | null;
  begin: () => void;
  pause: () => void;
  /** Walks the next link alone. */
  stepOn: () => void;
  /** Goes to where a link stands, and lets the walk go on from there. */
  goTo: (step: number) => void;
}

const notPressed = "It cannot be pressed in this reader.";

/** Follows every link of a file in its reader, one after the other, and compares with what the manuscript intends. */
export function useWalk(walker: Walker, proof: ExportWithProof, keep: (steps: Step[]) => void): Walk {
  const [steps, setSteps] = useState<Step[]>([]);
  const [next, setNext] = useState(0);
  const [isUnderWay, setUnderWay] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [hasWalked, setWalked] = useState(false);
  // What else is told of the file may change while it is walked.
  const { rows, madeRows } = proof;
  const isWanted = useRef(false);
  const isBusy = useRef(false);

  useEffect(() => {
    let isLeft = false;
    walker.links().then(
      (links) => {
        const intentions = intentionsOf({ rows, madeRows });
        const fresh = links.map((link) => ({
          link,
          intended: intentions.get(link.where) ?? null,
          start: null,
          landed: null,
          difference: null,
        }));
        // The manuscript's links are counted, not the reader's: one that cannot be pressed there is a step that failed.
        const absent = unwalked(intentions, links).map((row): Step => ({
          link: { where: row.found[0]!, on: row.found[0]!, words: row.text },
          intended: row,
          start: null,
          landed: { at: "missed", what: notPressed },
          difference: notPressed,
        }));
        if (!isLeft) setSteps([...fresh, ...absent]);
      },
      (error: unknown) => {
        if (!isLeft) setProblem((error as Error).message);
      },
    );
    return () => {
      isLeft = true;
      isWanted.current = false;
    };
  }, [walker, rows, madeRows]);

  const walk = async (from: number, most: number): Promise<void> => {
    if (isBusy.current) return;
    isBusy.current = true;
    isWanted.current = true;
    setUnderWay(true);
    setWalked(true);
    setProblem(null);
    try {
      for (let i = from; i < Math.min(steps.length, from + most) && isWanted.current; i++) {
        setNext(i);
        const { link, intended, landed: known } = steps[i]!;
        if (known?.at === "missed" && known.what === notPressed) continue;
        const start = await walker.show(link);
        const landed = await walker.follow(link);
        const difference = differenceOf(landed, intended ?? undefined);
        setSteps((all) => all.with(i, { ...all[i]!, start, landed, difference }));
        await walker.back();
        setNext(i + 1);
      }
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      isBusy.current = false;
      isWanted.current = false;
      setUnderWay(false);
    }
  };
  // What all steps came to is kept with the file.
  const isDone = steps.length > 0 && steps.every(({ landed }) => landed !== null);
  const latestKeep = useRef(keep);
  useEffect(() => {
    latestKeep.current = keep;
  });
  useEffect(() => {
    if (hasWalked && isDone && !isUnderWay) latestKeep.current(steps);
  }, [hasWalked, isDone, isUnderWay, steps]);
  return {
    steps,
    next,
    isUnderWay,
    problem,
    begin: () => void walk(next < steps.length ? next : 0, Infinity),
    pause: () => {
      isWanted.current = false;
    },
    stepOn: () => void walk(next < steps.length ? next : 0, 1),
    goTo: (step) => {
      if (isBusy.current) return;
      setNext(step);
      walker.show(steps[step]!.link).catch((error: unknown) => setProblem((error as Error).message));
    },
  };
}
