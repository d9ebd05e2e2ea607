import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { Book } from "@vennet/core/manuscript/book";
import { drawnBoxes } from "@vennet/core/pdf/drawn-boxes";
import { openPdf, OPS } from "@vennet/core/pdf/pdf-js";
import { OpenPdf } from "@vennet/core/proof/mutations/opened/open-pdf";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { redDot } from "@vennet/core/test/red-dot";
import { bookOf, bringIn } from "@vennet/core/test/sample-book";
import { Typesetter } from "./typesetter.ts";

const typesetter = new Typesetter();

/** A book of Markdown in which all pictures are red dots, or another. */
function withDots(markdown: string, bytes: Uint8Array = redDot): Book {
  const { chapters } = bringIn(markdown, null, () => "dot");
  return bookOf("", {
    chapters: chapters.map((doc, i) => ({ id: `chapter-${i}`, role: "chapter" as const, doc })),
    pictures: [{ id: "dot", mediaType: "image/png", bytes }],
  });
}

/** What its proof finds wrong with a book's PDF. */
async function wrong(book: Book, pdf = typesetter.write(book, true).pdf): Promise<string[]> {
  const { faults, rows, extra } = prove(book, await readPdf(pdf));
  return [
    ...faults.map(({ what }) => what),
    ...rows.filter(({ verdict }) => verdict !== "intact").map(({ verdict, note }) => `${verdict}: ${note}`),
    ...extra.map(({ text }) => `extra: ${text}`),
  ];
}

describe("headings", () => {
  test.each([
    ["a picture", "## ![Dot](dot.png)"],
    ["a picture that is a link", "## [![Dot](dot.png)](https://huts.hesterley.example/)"],
    [
      "two of them",
      "## [![Dot](d.png)](https://huts.hesterley.example/) [![Dot](d.png)](https://boats.hesterley.example/)",
    ],
    ["a note's mark", "## [^1]\n\nLow water.\n\n[^1]: At nine."],
    ["a break", "## <br>"],
    ["a picture before words", "## ![Dot](dot.png) Huts"],
    ["a link with a picture and words", "## [![Dot](dot.png) Huts](https://huts.hesterley.example/)"],
    ["a note after words", "## Huts[^1]\n\nLow water.\n\n[^1]: At nine."],
  ])("of %s are set, listed by their words, and proven", async (_, heading) => {
    const markdown = `# Sands\n\nThe sands lie bare.\n\n${heading}\n\nThe water comes.`;
    expect(await wrong(withDots(markdown))).toEqual([]);
    // Whoever has not brought the pictures reads their words in their place.
    expect(await wrong(bookOf(markdown))).toEqual([]);
  });
});

describe("a link holds a picture and words", () => {
  const mixed = "[![Dot](dot.png) the huts](https://huts.hesterley.example/)";
  test.each([
    ["in a paragraph", `See ${mixed} and go.`],
    ["with the words first", "See [the huts ![Dot](dot.png)](https://huts.hesterley.example/) and go."],
    ["in a list", `- ${mixed}\n- sands`],
    ["in a table", `| a | b |\n| --- | --- |\n| ${mixed} | sands |`],
    ["in a note", `Sands[^1].\n\n[^1]: ${mixed}`],
    [
      "with a line's end between",
      '<a href="https://huts.hesterley.example/"><img src="d.png" alt="Dot"><br>the huts</a>',
    ],
    [
      "as wide as a line",
      '<a href="https://huts.hesterley.example/"><img src="d.png" width="300" alt="Dot"> the huts</a>',
    ],
    ["that is decorative", '<a href="https://huts.hesterley.example/"><img src="d.png" alt=""> the huts</a>'],
  ])("%s, and its area lies on both", async (_, markdown) => {
    expect(await wrong(withDots(`# Sands\n\n${markdown}\n\nThe water comes.`))).toEqual([]);
  });

  test("in blocks of their own, beside another picture", async () => {
    const inBlocks =
      '<a href="https://huts.hesterley.example/"><div><img src="d.png" alt="Dot"></div><b>the huts</b><div>by boat</div></a>';
    const other = "[![Dot](d.png)](https://boats.hesterley.example/)";
    expect(await wrong(withDots(`# Sands\n\n${inBlocks}\n\nThe sands.\n\n${other}`))).toEqual([]);
  });

  test("but a part of an area on another's picture is told", async () => {
    const book = withDots(
      "# Sands\n\nSee [the huts](https://huts.hesterley.example/) and go.\n\nThe sands.\n\nThe boats.\n\n![Path](path.png)",
      readFileSync(new URL("../../demo/manuscript/pictures/monks-path.png", import.meta.url)),
    );
    const { pdf } = typesetter.write(book, true);
    const opened = openPdf(pdf);
    const document = await opened.promise;
    const page = await document.getPage(document.numPages);
    const [picture] = drawnBoxes(await page.getOperatorList({ intent: "print" }), OPS).pictures;
    await opened.destroy();
    const [left, low, right, high] = picture!;
    const file = new OpenPdf(pdf);
    const [link] = file.outward();
    const own = file.objects.read(link!.dictionary.get("Rect")) as number[];
    const lines = [own, picture!].flatMap(([l, b, r, t]) => [l!, t!, r!, t!, l!, b!, r!, b!]);
    const around = [
      Math.min(own[0]!, left),
      Math.min(own[1]!, low),
      Math.max(own[2]!, right),
      Math.max(own[3]!, high),
    ];
    file.set(link!, "Rect", around);
    file.set({ ref: link!.ref, dictionary: file.objects.dictionary(link!.ref) }, "QuadPoints", lines);
    expect(await wrong(book, file.bytes())).toEqual([expect.stringContaining("A part of its area")]);
  });
});
