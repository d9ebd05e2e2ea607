import type { Finding, Severity } from "@vennet/core/checks/finding";
import { CircleAlert, Lightbulb, OctagonX } from "lucide-react";

const marks = {
  stop: { icon: OctagonX, word: "Stops export" },
  fix: { icon: CircleAlert, word: "Fix" },
  consider: { icon: Lightbulb, word: "Consider" },
};

/** The word for each severity. */
export const severityWords: Record<Severity, string> = {
  stop: marks.stop.word,
  fix: marks.fix.word,
  consider: marks.consider.word,
};

/** What each severity means, for readers and for who exports. */
export const severityMeanings: Record<Severity, string> = {
  stop: "the book cannot go out so",
  fix: "readers will meet it",
  consider: "may be right as it is",
};

/** A severity by its shape and its word. */
export function SeverityMark({ severity, count = 1 }: { severity: Severity; count?: number }) {
  const { icon: Icon, word } = marks[severity];
  return (
    <span
      className={`inline-flex items-center gap-1 whitespace-nowrap ${severity === "consider" ? "" : "text-red"}`}
    >
      <Icon aria-hidden size={14} />
      {word}
      {count > 1 && <span className="tabular-nums">{count}</span>}
    </span>
  );
}

/** How many findings a link has: the gravest severity, and their number. */
export function FindingMark({ findings }: { findings: Finding[] }) {
  const severity = (["stop", "fix", "consider"] as const).find((one) =>
    findings.some((finding) => finding.severity === one),
  )!;
  return <SeverityMark severity={severity} count={findings.length} />;
}
