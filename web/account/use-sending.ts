import { useState } from "react";
import { ApiError } from "../api/client";

/** One thing that is sent to the server at a press: whether it is under way, how it went, and what was refused. */
export function useSending(): {
  busy: boolean;
  /** What is said of it once it went well. */
  done: string | null;
  error: ApiError | null;
  /** What is wrong with a field of it. */
  problemOf: (field: string) => string | null;
  send: (call: () => Promise<string>) => Promise<void>;
} {
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<string | null>(null);
  const [error, setError] = useState<ApiError | null>(null);
  const send = async (call: () => Promise<string>): Promise<void> => {
    setBusy(true);
    setDone(null);
    setError(null);
    try {
      setDone(await call());
    } catch (problem) {
      if (!(problem instanceof ApiError)) throw problem;
      setError(problem);
    } finally {
      setBusy(false);
    }
  };
  return { busy, done, error, problemOf: (field) => (error?.field === field ? error.message : null), send };
}
