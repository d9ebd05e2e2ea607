import type { ReactNode } from "react";
import { StageFrame } from "../frame/stage-frame";

const views = [
  ["", "Addresses"],
  ["/findings", "Findings"],
] as const;

/** The frame of the stage Checks: what addresses answer, and what the rules find. */
export function ChecksFrame({ children }: { children: ReactNode }) {
  return (
    <StageFrame name="Checks" path="checks" views={views}>
      {children}
    </StageFrame>
  );
}
