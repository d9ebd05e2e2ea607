import { expect, test } from "@jest/globals";
import { exportOptions } from "@vennet/core/publish/formats/formats";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { bookWith, chapter, text } from "@vennet/core/test/book-of-places";
import { plainBook } from "../test/plain-book.ts";
import type { TaskEvent } from "../workers/task.ts";
import { run } from "./export-task.ts";

const book = bookWith(
  Array.from({ length: 12 }, (_, i) => chapter(`c${i}`, `Walk ${i}`, text("Low water. ".repeat(200)))),
);

test("an export tells how far it has come, by pages while it reads them back", async () => {
  const events: TaskEvent[] = [];
  const options = exportOptions({ format: "pdf" });
  const { bytes } = await run(
    { book: plainBook(book), options, name: "walks.pdf", lastPages: null },
    (event) => events.push(event),
  );
  const done = events.map((event) => event.done!);
  expect(done).toEqual(done.toSorted((a, b) => a - b));
  expect(done.at(-1)).toBeLessThanOrEqual(100);
  expect(events.map(({ message }) => message!.split(": ")[0])).toEqual(
    expect.arrayContaining(["Setting the pages", "Reading the file back", "Comparing the links"]),
  );
  const pages: [number, number][] = [];
  await readPdf(bytes, (page, of) => pages.push([page, of]));
  expect(pages).toHaveLength(pages[0]![1]);
  expect(pages.map(([page]) => page)).toEqual(pages.map((_, i) => i + 1));
});
