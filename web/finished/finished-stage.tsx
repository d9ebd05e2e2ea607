import type { ReactNode } from "react";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { NotRead, type Asked } from "../parts/not-read";
import type { PageOfLinks } from "./changed-links";
import type { Pages } from "./use-pages";

/** The stage on which links of a finished file are worked on: whether they are kept, and what went wrong. */
export function FinishedStage<Page extends PageOfLinks>({
  kept,
  asked,
  children,
}: {
  kept: Pages<Page>;
  /** The file. */
  asked: Asked;
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
      <NotRead of={asked} says={({ message }) => `The file cannot be shown: ${message}`} />
      {children ?? (!asked.error && !kept.problem && <Waiting what="Opening the file" />)}
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
