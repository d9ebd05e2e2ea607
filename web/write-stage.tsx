import { lazy, Suspense } from "react";
import { useBook } from "./book-page";
import { Waiting } from "./parts/notice";

const WritePage = lazy(async () => ({ default: (await import("./write/write-page")).WritePage }));
const PagesPage = lazy(async () => ({ default: (await import("./finished/pdf/pages-page")).PagesPage }));
const BookStage = lazy(async () => ({ default: (await import("./finished/epub/book-stage")).BookStage }));

/** The first stage: of a book its text, of a finished file its pages. */
export function WriteStage() {
  const { finished } = useBook();
  return (
    <Suspense fallback={<Waiting what="Opening" />}>
      {!finished ? <WritePage /> : finished.format === "epub" ? <BookStage /> : <PagesPage />}
    </Suspense>
  );
}
