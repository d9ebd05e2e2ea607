import { useCallback, useState } from "react";
import type { Asked } from "./not-read";

/** For what is read without a query: whether it failed, and a count that grows with each time it is to be read again. */
export function useAsked(): { asked: Asked; tries: number; fail: (why: unknown) => void } {
  const [error, setError] = useState<Error | null>(null);
  const [tries, setTries] = useState(0);
  const fail = useCallback((why: unknown) => setError(why as Error), []);
  const refetch = (): void => {
    setError(null);
    setTries(tries + 1);
  };
  return { asked: { error, refetch }, tries, fail };
}
