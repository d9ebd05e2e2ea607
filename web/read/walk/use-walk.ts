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
  /** The links that the proof has found in the file, and its reader has not. */
  absent: ExportWithProof["rows"];
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

/** Follows every link of a file in its reader, one after the other, and compares with what the manuscript intends. */
export function useWalk(walker: Walker, proof: ExportWithProof): Walk {
  const [steps, setSteps] = useState<Step[]>([]);
  const [absent, setAbsent] = useState<Walk["absent"]>([]);
  const [next, setNext] = useState(0);
  const [isUnderWay, setUnderWay] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const isWanted = useRef(false);
  const isBusy = useRef(false);

  useEffect(() => {
    let isLeft = false;
    walker.links().then(
      (links) => {
        const intentions = intentionsOf(proof);
        const fresh = links.map((link) => ({
          link,
          intended: intentions.get(link.where) ?? null,
          start: null,
          landed: null,
          difference: null,
        }));
        if (isLeft) return;
        setSteps(fresh);
        setAbsent(unwalked(intentions, links));
      },
      (error: unknown) => {
        if (!isLeft) setProblem((error as Error).message);
      },
    );
    return () => {
      isLeft = true;
      isWanted.current = false;
    };
  }, [walker, proof]);

  const walk = async (from: number, most: number): Promise<void> => {
    if (isBusy.current) return;
    isBusy.current = true;
    isWanted.current = true;
    setUnderWay(true);
    setProblem(null);
    try {
      for (let i = from; i < Math.min(steps.length, from + most) && isWanted.current; i++) {
        setNext(i);
        const { link, intended } = steps[i]!;
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
  return {
    steps,
    absent,
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
