import { useEffect } from "react";
import { create } from "zustand";
import { Button } from "./button";
import { Problem } from "./notice";

/** Something that is read, and how it is asked for again; what a query is. */
export interface Asked {
  error: Error | null;
  refetch: () => unknown;
}

/** Why something could not be read, where the page says so in its place. All else is said by the frame. */
export const useToldErrors = create<ReadonlySet<Error>>(() => new Set());

/** For what the page says in its own way that it could not be read. */
export function useTold(error: Error | null): void {
  useEffect(() => {
    if (!error) return;
    const change = (edit: (told: Set<Error>) => void): void =>
      useToldErrors.setState((told) => {
        const next = new Set(told);
        edit(next);
        return next;
      }, true);
    change((told) => told.add(error));
    return () => change((told) => told.delete(error));
  }, [error]);
}

/** Says, where it would stand, that something could not be read, and offers to ask again. Nothing while it can be. */
export function NotRead({
  of,
  says = (error) => error.message,
}: {
  of: Asked;
  says?: (error: Error) => string;
}) {
  const { error } = of;
  useTold(error);
  if (!error) return null;
  return (
    <Problem action={<Button onClick={() => void of.refetch()}>Try again</Button>}>{says(error)}</Problem>
  );
}
