import type { ReactNode } from "react";
import { useBook } from "../book-page";
import { StageFrame } from "../frame/stage-frame";

const views = [
  ["", "All links"],
  ["/files", "Files"],
  ["/codes", "Match codes to files"],
  ["/addresses", "Addresses without a link"],
  ["/looks", "Link looks"],
  ["/numbers", "Numbers and notes"],
  ["/steps", "What was done"],
] as const;

/** What only a manuscript has. */
const ofManuscripts = new Set(["/codes", "/addresses", "/looks", "/numbers"]);

/** The frame of the stage Links: the ledger and what belongs to it. */
export function LinksFrame({ children }: { children: ReactNode }) {
  const { finished } = useBook();
  const shown = finished ? views.filter(([end]) => !ofManuscripts.has(end)) : views;
  return (
    <StageFrame name="Links" path="links" views={shown}>
      {children}
    </StageFrame>
  );
}
