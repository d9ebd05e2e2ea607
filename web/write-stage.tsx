import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import type { ComponentType } from "react";
import { useBook } from "./book-page";
import { later } from "./parts/later";

const what = "Opening";
// Fetched while session and book are still asked for.
const Writing = later(what, async () => (await import("./write/write-page")).WritePage, {
  isSoonShown: true,
});

/** Where the links of finished files of each format are worked on. */
const pagesOf: Readonly<Record<FinishedFormat, ComponentType>> = {
  pdf: later(what, async () => (await import("./finished/pdf/pages-page")).PagesPage),
  epub: later(what, async () => (await import("./finished/epub/book-stage")).BookStage),
};

/** The first stage: of a book its text, of a finished file its pages. */
export function WriteStage() {
  const { finished } = useBook();
  const Stage = finished ? pagesOf[finished.format] : Writing;
  return <Stage />;
}
