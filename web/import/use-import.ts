import { useCallback, useRef, useState } from "react";
import { answerOf, api, sendForm, type Imported, type Job } from "../api/client";
import { useStale } from "../api/stale";
import { isUnderWay, useJob } from "../api/use-job";

/** A manuscript on its way in: sent, read, and kept, with the way to stop it. */
export interface Import {
  /** What it is at, with how far it has come; null while nothing is under way. */
  underWay: { message: string; done: number; total: number } | null;
  /** What it came to. */
  result: Imported | null;
  problem: { message: string; field: string | null } | null;
  begin: (form: FormData) => void;
  cancel: () => void;
}

const steps = 100;

/** @param bookId the book that it is to be chapters of; null for one of its own */
export function useImport(bookId: string | null): Import {
  const stale = useStale();
  const [sent, setSent] = useState<number | null>(null);
  const [begun, setBegun] = useState<Job | null>(null);
  const [result, setResult] = useState<Imported | null>(null);
  const [problem, setProblem] = useState<Import["problem"]>(null);
  const sending = useRef<AbortController | null>(null);

  const fail = useCallback((error: unknown): void => {
    const { message, field = null } = error as { message: string; field?: string | null };
    setProblem({ message, field });
  }, []);

  const job = useJob(begun, (now) => {
    if (isUnderWay(now)) return;
    setBegun(null);
    if (now.state === "failed") setProblem({ message: now.message, field: null });
    if (now.state !== "done") return;
    answerOf(api.GET("/api/jobs/{jobId}/import", { params: { path: { jobId: now.id } } })).then((came) => {
      setResult(came);
      void stale("books");
    }, fail);
  });

  const begin = (form: FormData): void => {
    setProblem(null);
    setSent(0);
    sending.current = new AbortController();
    const path = bookId === null ? "/api/books/import" : `/api/books/${bookId}/import`;
    sendForm<Job>(path, form, { onProgress: setSent, signal: sending.current.signal })
      .then(setBegun, (error: unknown) => {
        if ((error as { code?: string }).code !== "cancelled") fail(error);
      })
      .finally(() => setSent(null));
  };

  const cancel = (): void => {
    if (sent !== null) sending.current?.abort();
    else if (begun)
      answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: begun.id } } })).catch(fail);
  };

  const underWay =
    sent !== null
      ? { message: "Sending the manuscript", done: Math.round(sent * steps), total: steps }
      : begun
        ? {
            message: job?.message || "Waiting for its turn",
            done: job?.done ?? 0,
            total: job?.total ?? 0,
          }
        : null;
  return { underWay, result, problem, begin, cancel };
}
