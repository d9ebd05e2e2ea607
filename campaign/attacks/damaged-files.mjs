import { readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";

const demo = join(import.meta.dirname, "../../demo/manuscript");

/** Files with bytes changed, left out and put in: as manuscripts, as pictures, as companion files. */
export const damagedFiles = {
  name: "Damaged files",
  async run({ newAuthor, short, seed }) {
    const author = await newAuthor();
    const bookId = await author.bringIn("# T\n\nLow water.\n");
    const count = short ? 200 : 2_000;
    const wholes = [
      ["manuscript", "walks.md", readFileSync(join(demo, "hesterley-sound.md"))],
      ["picture", "path.png", readFileSync(join(demo, "pictures/monks-path.png"))],
      [
        "file",
        "plan.pdf",
        Buffer.from("%PDF-1.7\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF"),
      ],
    ];
    const damage = fc.record({
      which: fc.nat(wholes.length - 1),
      places: fc.array(
        fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.uint8Array({ maxLength: 8 })),
        { minLength: 1, maxLength: 20 },
      ),
      cutAt: fc.double({ min: 0, max: 1, noNaN: true }),
      name: fc.oneof(fc.constant(null), fc.string({ unit: "binary", maxLength: 40 })),
    });
    const statuses = [];
    const wrong = [];
    const jobs = [];
    for (const { which, places, cutAt, name } of fc.sample(damage, { numRuns: count, seed })) {
      const [kind, usual, whole] = wholes[which];
      const bytes = Buffer.from(
        whole.subarray(0, Math.max(1, Math.ceil(whole.length * (1 - cutAt * cutAt * cutAt)))),
      );
      for (const [at, piece] of places)
        bytes.set(
          piece.subarray(0, bytes.length - Math.floor(at * (bytes.length - 1))),
          Math.floor(at * (bytes.length - 1)),
        );
      const form = new FormData();
      form.set(kind, new Blob([bytes]), name ?? usual);
      const path =
        kind === "manuscript"
          ? "/books/import"
          : kind === "picture"
            ? `/books/${bookId}/pictures`
            : `/books/${bookId}/files`;
      const answer = await author.call("POST", path, form);
      statuses.push(answer.status);
      if (answer.status === 202) jobs.push(answer.body.id);
    }
    for (const id of jobs) {
      const { state, message } = await author.jobEnd(id);
      if (state === "never ended" || /Something went wrong/.test(message))
        wrong.push(`an import ended as ${state}: ${message}`);
    }
    return { did: `${count} files`, statuses, wrong };
  },
};
