import type { Finding } from "@vennet/core/checks/finding";
import { changedBlocks } from "@vennet/core/manuscript/changed-blocks";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import type { Node } from "prosemirror-model";
import { useEffect, useRef, useState } from "react";
import type { CheckBasis, Checked, ToCheck } from "./check-worker";

const pauseBeforeCheck = 300;
const none = new Map<string, Finding[]>();

/** What the rules find at each link, note, caption and list of the chapter, a moment after the last change. */
export function useFindings(doc: Node | null, basis: CheckBasis | null): Map<string, Finding[]> {
  const [findings, setFindings] = useState(none);
  const [worker, setWorker] = useState<Worker | null>(null);
  const turn = useRef(0);
  /** What the worker has of the chapter. */
  const sent = useRef<Node | null>(null);

  useEffect(() => {
    sent.current = null;
    const made = new Worker(new URL("./check-worker.ts", import.meta.url), { type: "module" });
    made.onmessage = ({ data }: MessageEvent<Checked>) => {
      // Of a text that has changed since, a later answer tells.
      if (data.turn === turn.current) setFindings(bySubject(data.findings));
    };
    made.onerror = (event) => {
      // Thrown where the page's own errors are shown.
      setFindings(() => {
        throw new Error(`The rules could not be run: ${event.message}`);
      });
    };
    setWorker(made);
    return () => made.terminate();
  }, []);

  useEffect(() => {
    if (worker && basis) worker.postMessage({ basis } satisfies ToCheck);
  }, [worker, basis]);

  useEffect(() => {
    if (!worker || !doc || !basis) return;
    const timer = setTimeout(() => {
      turn.current++;
      const what = sent.current
        ? { changed: changedBlocks(sent.current, doc) }
        : { document: writeChapter(doc) };
      worker.postMessage({ turn: turn.current, ...what } satisfies ToCheck);
      sent.current = doc;
    }, pauseBeforeCheck);
    return () => clearTimeout(timer);
  }, [worker, doc, basis]);
  return findings;
}

function bySubject(findings: readonly Finding[]): Map<string, Finding[]> {
  const found = new Map<string, Finding[]>();
  for (const finding of findings) {
    const list = found.get(finding.subject);
    if (list) list.push(finding);
    else found.set(finding.subject, [finding]);
  }
  return found;
}
