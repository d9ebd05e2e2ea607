import { useEffect, useRef, useState } from "react";

const drafts = new Map<string, unknown>();

/**
 * What was filled in somewhere and neither taken nor given up: kept when its fields go (a press beside them, Tab past
 * their end, another stage), and offered when they are opened again at the same place.
 * @param place by which the fields are known again
 * @param filled what is in them; null where it is as it was
 */
export function useDraft<T>(
  place: string,
  filled: T | null,
): { offered: T | null; drop: () => void; take: () => T | null } {
  const [offered, setOffered] = useState(() => (drafts.get(place) as T | undefined) ?? null);
  const latest = useRef(filled);
  const isSettled = useRef(false);
  latest.current = filled;
  useEffect(
    () => () => {
      if (!isSettled.current && latest.current !== null) drafts.set(place, latest.current);
    },
    [place],
  );
  return {
    offered,
    /** What is filled in was taken, or is not wanted. */
    drop: () => {
      isSettled.current = true;
      // At once: the fields of what was taken may stand there before these have gone.
      drafts.delete(place);
    },
    take: () => {
      setOffered(null);
      return offered;
    },
  };
}
