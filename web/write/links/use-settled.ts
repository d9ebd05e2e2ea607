import { useEffect, useState } from "react";

const pause = 150;

/** What was typed, once typing pauses; empty as soon as it is not wanted. */
export function useSettled(typed: string, isWanted: boolean): string {
  const [settled, setSettled] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setSettled(isWanted ? typed : ""), pause);
    return () => clearTimeout(timer);
  }, [isWanted, typed]);
  return settled;
}
