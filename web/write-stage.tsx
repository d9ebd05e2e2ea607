import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import { lazy, Suspense, useState, type ComponentType } from "react";
import { useBook } from "./book-page";
import { Waiting } from "./parts/notice";

// Fetched while session and book are still asked for. What React finds here when it wants it is drawn at once; what
// comes a moment later it holds back for a third of a second.
let writing: ComponentType | null = null;
const fetchWriting = async (): Promise<ComponentType> =>
  (writing = (await import("./write/write-page")).WritePage);
const WritingLater = lazy(async () => ({ default: await fetchWriting() }));
// If it does not come, that is said where it is drawn, which asks again.
fetchWriting().catch(() => undefined);

/** Where the links of finished files of each format are worked on. */
const pagesOf: Readonly<Record<FinishedFormat, ComponentType>> = {
  pdf: lazy(async () => ({ default: (await import("./finished/pdf/pages-page")).PagesPage })),
  epub: lazy(async () => ({ default: (await import("./finished/epub/book-stage")).BookStage })),
};

/** The first stage: of a book its text, of a finished file its pages. */
export function WriteStage() {
  const { finished } = useBook();
  // The same one for as long as the stage is open, else the text would be opened anew.
  const [Writing] = useState<ComponentType>(() => writing ?? WritingLater);
  const Stage = finished ? pagesOf[finished.format] : Writing;
  return (
    <Suspense fallback={<Waiting what="Opening" />}>
      <Stage />
    </Suspense>
  );
}
