import { checkChapter } from "@vennet/core/checks/check-chapter";
import type { CheckContext, Finding } from "@vennet/core/checks/finding";
import type { Node } from "prosemirror-model";
import { useEffect, useState } from "react";

const pauseBeforeCheck = 300;
const none = new Map<string, Finding[]>();

/** What the rules find at each link, note, caption and list of the chapter, a moment after the last change. */
export function useFindings(doc: Node | null, context: CheckContext | null): Map<string, Finding[]> {
  const [findings, setFindings] = useState(none);
  useEffect(() => {
    if (!doc || !context) return;
    const timer = setTimeout(() => {
      const bySubject = new Map<string, Finding[]>();
      for (const finding of checkChapter(doc, context)) {
        const list = bySubject.get(finding.subject);
        if (list) list.push(finding);
        else bySubject.set(finding.subject, [finding]);
      }
      setFindings(bySubject);
    }, pauseBeforeCheck);
    return () => clearTimeout(timer);
  }, [doc, context]);
  return findings;
}
