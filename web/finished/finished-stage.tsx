import type { ReactNode } from "react";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import type { PageOfLinks } from "./changed-links";
import type { Pages } from "./use-pages";

/** The stage on which links of a finished file are worked on: whether they are kept, and what went wrong. */
export function FinishedStage<Page extends PageOfLinks>({
  kept,
  problem,
  children,
}: {
  kept: Pages<Page>;
  /** Why the file cannot be shown; null where it can. */
  problem: string | null;
  /** Its pages; null until they and the file are there. */
  children: ReactNode | null;
}) {
  const book = useBook();
  return (
    <PageFrame
      book={book}
      state={
        <span role="status" className="text-sm text-faint">
          {kept.isSaving ? "Keeping …" : kept.pages ? "Kept" : ""}
        </span>
      }
    >
      <h1 className="sr-only">Pages</h1>
      {kept.problem && (
        <Problem action={<Button onClick={kept.again}>Look again</Button>}>{kept.problem}</Problem>
      )}
      {problem && <Problem>{`The file cannot be shown: ${problem}`}</Problem>}
      {children ?? (!problem && !kept.problem && <Waiting what="Opening the file" />)}
    </PageFrame>
  );
}

/** What is said while a press on a page says where a link leads. */
export function PointingBar({ children, onCancel }: { children: string; onCancel: () => void }) {
  return (
    <div
      role="status"
      className="sticky top-0 z-30 mx-auto mb-3 flex w-fit max-w-full flex-wrap items-center gap-3 border border-blue bg-blue-wash px-3 py-1.5"
    >
      {children}
      <Button kind="quiet" onClick={onCancel}>
        Cancel
      </Button>
    </div>
  );
}
