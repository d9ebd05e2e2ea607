import { useCallback, useRef, useState } from "react";
import { answerOf, api, sendForm, type Imported, type Job } from "../api/client";
import { useStepDone } from "../links/use-step-done";
import { useStale } from "../api/stale";
import type { Side } from "./version";
import { isUnderWay } from "../api/follow-job";
import { useJob } from "../api/use-job";

/** A manuscript that was read and waits for its author to look at it. */
export interface Looked extends Imported {
  jobId: string;
}

/** A manuscript on its way in: sent, read, looked at, and kept, with the way to stop it. */
export interface Import {
  /** What it is at, with how far it has come; null while nothing is under way. */
  underWay: { message: string; done: number; total: number } | null;
  looked: Looked | null;
  /** What it came to once it was kept. */
  kept: Imported | null;
  problem: { message: string; field: string | null } | null;
  begin: (form: FormData) => void;
  /** Brings in again what is looked at, with more files or another address. */
  again: (form: FormData) => void;
  /** @param choices which text is taken at each clash of a new version */
  keep: (title: string, choices?: readonly Side[]) => void;
  drop: () => void;
  cancel: () => void;
}

const steps = 100;

/** @param bookId the book that it is to be chapters of; null for one of its own */
export function useImport(bookId: string | null): Import {
  const stale = useStale();
  const stepDone = useStepDone(bookId ?? "");
  const [sent, setSent] = useState<number | null>(null);
  const [begun, setBegun] = useState<Job | null>(null);
  const [looked, setLooked] = useState<Looked | null>(null);
  const [kept, setKept] = useState<Imported | null>(null);
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
      if (!came.book) return setLooked({ ...came, jobId: now.id });
      setLooked(null);
      setKept(came);
      void stale("books");
      if (came.step) stepDone(came.step);
    }, fail);
  });

  const send = (path: string, form: FormData): void => {
    setProblem(null);
    setSent(0);
    sending.current = new AbortController();
    sendForm<Job>(path, form, { onProgress: setSent, signal: sending.current.signal })
      .then(setBegun, (error: unknown) => {
        if ((error as { code?: string }).code !== "cancelled") fail(error);
      })
      .finally(() => setSent(null));
  };

  const begin = (form: FormData): void => {
    form.set("review", "yes");
    send(bookId === null ? "/api/books/import" : `/api/books/${bookId}/import`, form);
  };

  const again = (form: FormData): void => {
    if (looked) send(`/api/jobs/${looked.jobId}/import/again`, form);
  };

  const keep = (title: string, choices: readonly Side[] = []): void => {
    if (!looked) return;
    setProblem(null);
    const params = { path: { jobId: looked.jobId } };
    answerOf(
      api.POST("/api/jobs/{jobId}/import/keep", { params, body: { title, choices: [...choices] } }),
    ).then(setBegun, fail);
  };

  const drop = (): void => {
    if (!looked) return;
    const params = { path: { jobId: looked.jobId } };
    setLooked(null);
    answerOf(api.DELETE("/api/jobs/{jobId}/import", { params })).catch(fail);
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
  return { underWay, looked, kept, problem, begin, again, keep, drop, cancel };
}
