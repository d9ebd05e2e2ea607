import { expect, test } from "@jest/globals";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { bookOf } from "@vennet/core/test/sample-book";
import { Typesetter } from "./typesetter.ts";

const ways = "https://tides.hesterley.example/ways";

test.each([
  `[water](${ways})ways`,
  `[*water*](${ways})ways`,
  `[water](${ways})*ways*`,
  `[water](${ways})[ways](https://tides.hesterley.example/others)`,
  `wa[ter](${ways})ways`,
  `[\`water\`](${ways})ways`,
  `[water\u00ad](${ways})ways`,
  `[water](${ways})\u00adways`,
])("%s is set and proven wherever a line ends in it", async (words) => {
  const typesetter = new Typesetter();
  // At one length or another the line ends within the word.
  for (let length = 6; length < 44; length += 2) {
    const book = bookOf(
      `# A\n\nThe contents of the section ${"i".repeat(length)} with ${words} goes on, and more of it.`,
    );
    const proof = prove(book, await readPdf(typesetter.write(book, true).pdf));
    expect([length, proof.rows.map(({ note }) => note), proof.complete]).toEqual([
      length,
      proof.rows.map(() => null),
      true,
    ]);
  }
});
