import { expect, jest, test } from "@jest/globals";
import { getDocument } from "@vennet/core/pdf/pdf-js";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { bookOf } from "@vennet/core/test/sample-book";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { Typesetter } from "./typesetter.ts";

const word = fc.constantFrom(
  ..."the tide comes over stones and walkers wait for the keeper to ring".split(" "),
);
const words = (most: number, least = 3) => fc.array(word, { minLength: least, maxLength: most });
const paragraph = fc.record({
  inList: fc.boolean(),
  calls: fc.array(fc.tuple(words(40), words(40)), { minLength: 1, maxLength: 3 }),
});

test("every note at the foot of a page begins on the page of its mark", async () => {
  const paragraphs = fc.sample(fc.array(paragraph, { minLength: 70, maxLength: 80 }), {
    seed: 7,
    numRuns: 2,
  });
  for (const list of paragraphs) {
    let count = 0;
    const notes: string[] = [];
    const text = list.map(({ inList, calls }) => {
      const lines = calls.map(([before, note]) => {
        count++;
        notes.push(`[^n${count}]: Note${count}begins ${note.join(" ")}`);
        return `${before.join(" ")}[^n${count}]`;
      });
      return `${inList ? "- " : ""}${lines.join(" ")} and on.`;
    });
    const { pdf } = new Typesetter().write(bookOf(`# A\n\n${[...text, ...notes].join("\n\n")}`), true);
    const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
    const begins = new Map<string, number>();
    for (let page = 1; page <= document.numPages; page++) {
      const { items } = await (await document.getPage(page)).getTextContent();
      const shown = items.map((item) => ("str" in item ? item.str : "")).join(" ");
      for (const [, note] of shown.matchAll(/Note(\d+)begins/g)) begins.set(note!, page);
    }
    const marks = (await readPdf(pdf)).notes.map(({ words: mark, where }) => [
      mark,
      Number(/\d+/.exec(where)![0]),
    ]);
    expect(marks).toHaveLength(count);
    expect(marks).toEqual(marks.map(([mark]) => [mark, begins.get(mark as string)]));
  }
});

test("notes of tables are counted in the order of their cells, on whatever pages their rows fall", async () => {
  const cell = fc.record({ said: words(16), note: fc.option(words(40), { freq: 3 }) });
  const table = fc
    .integer({ min: 2, max: 4 })
    .chain((columns) =>
      fc.array(fc.array(cell, { minLength: columns, maxLength: columns }), { minLength: 4, maxLength: 8 }),
    );
  const tables = fc.array(fc.tuple(words(120), table), { minLength: 14, maxLength: 14 });
  for (const parts of fc.sample(tables, { seed: 7, numRuns: 4 })) {
    const notes: string[] = [];
    const line = (cells: readonly string[]): string => `| ${cells.join(" | ")} |`;
    const text = parts.map(([before, rows]) => {
      const columns = rows[0]!.map(() => "---");
      const set = rows.map((row) =>
        line(
          row.map(({ said, note }) => {
            if (note) notes.push(note.join(" "));
            return `${said.join(" ")}${note ? `[^${notes.length}]` : ""}`;
          }),
        ),
      );
      return [before.join(" "), "", line(columns.map(() => "Way")), line(columns), ...set].join("\n");
    });
    const told = notes.map((note, i) => `[^${i + 1}]: ${note}`);
    const book = bookOf(`# A\n\n${[...text, ...told].join("\n\n")}`);
    const { faults } = prove(book, await readPdf(new Typesetter().write(book, true).pdf));
    expect(notes.length).toBeGreaterThan(30);
    expect(faults).toEqual([]);
  }
});

test("a book that is set again after an edit is as if it were set afresh, in fewer rounds", () => {
  const note = fc.tuple(words(120, 40), words(60));
  const chapters = fc.sample(fc.array(note, { minLength: 40, maxLength: 40 }), { seed: 7, numRuns: 8 });
  let count = 0;
  const text = chapters.map((paragraphs, i) => {
    const notes = paragraphs.map(([, said], at) => `[^n${count + at}]: ${said.join(" ")}`);
    const lines = paragraphs.map(([before]) => `${before.join(" ")}[^n${count++}] and on.`);
    return [`# ${"ABCDEFGH"[i]}`, ...lines, ...notes].join("\n\n");
  });
  const book = bookOf(text.join("\n\n"));
  const edited = (at: number): typeof book => {
    const change = (doc: Node): Node => {
      const paragraph = doc.child(1);
      const typed = doc.type.schema.text("The keeper rings when the water has left the stones. ");
      return doc.copy(doc.content.replaceChild(1, paragraph.copy(paragraph.content.addToStart(typed))));
    };
    return {
      ...book,
      chapters: book.chapters.map((one, i) => (i === at ? { ...one, doc: change(one.doc) } : one)),
    };
  };
  const rounds = jest.spyOn(Typesetter.prototype as unknown as { compile: () => unknown }, "compile");
  const setBy = (typesetter: Typesetter, given: typeof book) => {
    rounds.mockClear();
    return { pdf: Buffer.from(typesetter.write(given, true).pdf), rounds: rounds.mock.calls.length };
  };
  const typesetter = new Typesetter();
  const first = setBy(typesetter, book);
  const same = setBy(typesetter, book);
  expect(same.pdf.equals(first.pdf)).toBe(true);
  expect([first.rounds > 1, same.rounds]).toEqual([true, 1]);
  const all = book.chapters.map((_, at) => {
    const again = setBy(typesetter, edited(at));
    const afresh = setBy(new Typesetter(), edited(at));
    expect(again.pdf.equals(afresh.pdf)).toBe(true);
    return [again.rounds, afresh.rounds] as const;
  });
  const sum = (which: 0 | 1): number => all.reduce((total, one) => total + one[which], 0);
  expect(sum(0)).toBeLessThan(sum(1));
  rounds.mockRestore();
});
