import { lazy, Suspense } from "react";
import { useBook } from "./book-page";
import { Waiting } from "./parts/notice";

const ExportPage = lazy(async () => ({ default: (await import("./export/export-page")).ExportPage }));
const SavePage = lazy(async () => ({ default: (await import("./finished/save-page")).SavePage }));

/** The last stage: a book is exported, a finished file is saved. */
export function ExportStage() {
  const { finished } = useBook();
  return (
    <Suspense fallback={<Waiting what="Opening" />}>{finished ? <SavePage /> : <ExportPage />}</Suspense>
  );
}
