import type { ReactNode } from "react";
import { StageFrame } from "../frame/stage-frame";

const views = [
  ["", "All links"],
  ["/files", "Files"],
  ["/codes", "Match codes to files"],
  ["/looks", "Link looks"],
  ["/numbers", "Numbers and notes"],
  ["/steps", "What was done"],
] as const;

/** The frame of the stage Links: the ledger and what belongs to it. */
export function LinksFrame({ children }: { children: ReactNode }) {
  return (
    <StageFrame name="Links" path="links" views={views}>
      {children}
    </StageFrame>
  );
}
