import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import { lazy, Suspense, type ComponentType } from "react";
import { useBook } from "./book-page";
import { Waiting } from "./parts/notice";

const WritePage = lazy(async () => ({ default: (await import("./write/write-page")).WritePage }));
/** Where the links of finished files of each format are worked on. */
const pagesOf: Readonly<Record<FinishedFormat, ComponentType>> = {
  pdf: lazy(async () => ({ default: (await import("./finished/pdf/pages-page")).PagesPage })),
  epub: lazy(async () => ({ default: (await import("./finished/epub/book-stage")).BookStage })),
};

/** The first stage: of a book its text, of a finished file its pages. */
export function WriteStage() {
  const { finished } = useBook();
  const Stage = finished ? pagesOf[finished.format] : WritePage;
  return (
    <Suspense fallback={<Waiting what="Opening" />}>
      <Stage />
    </Suspense>
  );
}
