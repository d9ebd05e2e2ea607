import { useBook } from "./book-page";
import { ExportPage } from "./export/export-page";
import { SavePage } from "./finished/save-page";

/** The last stage: a book is exported, a finished file is saved. */
export function ExportStage() {
  return useBook().finished ? <SavePage /> : <ExportPage />;
}
