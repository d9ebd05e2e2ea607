import type { Finding } from "@vennet/core/checks/finding";
import { useState } from "react";
import { AcceptForm } from "../../checks/accept-form";
import { Button } from "../../parts/button";
import type { Acceptances } from "./use-acceptances";

/** One finding in a margin card: what is wrong, and the way to keep it on purpose, with a reason. */
export function CardFinding({
  finding,
  acceptances,
  onMend,
}: {
  finding: Finding;
  acceptances: Acceptances;
  /** Puts it right; null where one press cannot. */
  onMend: (() => void) | null;
}) {
  const { subject, rule, severity, message } = finding;
  const [isAsking, setAsking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const accepted = acceptances.reasonFor(subject, rule);
  const attempt = (work: Promise<void>): void => {
    setProblem(null);
    work.then(
      () => setAsking(false),
      (error: unknown) => setProblem((error as Error).message),
    );
  };
  if (accepted !== null) {
    return (
      <p className="mt-1 text-faint">
        Accepted: {accepted}{" "}
        <Button
          kind="quiet"
          className="!text-[0.83rem]"
          onClick={() => attempt(acceptances.takeBack(subject, rule))}
        >
          Withdraw
        </Button>
      </p>
    );
  }
  return (
    <div className="mt-1">
      <p className={severity === "consider" ? "" : "text-red"}>{message}</p>
      {onMend && !isAsking && (
        <Button kind="quiet" className="-ml-1 !text-[0.83rem]" onClick={onMend}>
          Mend
        </Button>
      )}
      {severity !== "stop" && !isAsking && (
        <Button kind="quiet" className="-ml-1 !text-[0.83rem]" onClick={() => setAsking(true)}>
          Accept
        </Button>
      )}
      {isAsking && (
        <AcceptForm
          buttonClass="!text-[0.83rem]"
          onAccept={(reason) => attempt(acceptances.accept(subject, rule, reason))}
          onLeave={() => setAsking(false)}
        />
      )}
      {problem && <p className="text-red">{problem}</p>}
    </div>
  );
}
