import type { ReactNode } from "react";
import { StageFrame } from "../frame/stage-frame";

const views = [
  ["", "Addresses"],
  ["/findings", "Findings"],
  ["/health", "Health"],
] as const;

/** The frame of the stage Checks: what addresses answer, what the rules find, and how it went over time. */
export function ChecksFrame({ children }: { children: ReactNode }) {
  return (
    <StageFrame name="Checks" path="checks" views={views}>
      {children}
    </StageFrame>
  );
}
