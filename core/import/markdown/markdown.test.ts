import { describe, expect, test } from "@jest/globals";
import { writeDestination } from "../../destination/destination.ts";
import { linkUses } from "../../manuscript/links.ts";
import { placesOf } from "../../manuscript/outline.ts";
import { pictureAttrs } from "../../manuscript/attributes.ts";
import { bring } from "../../test/brought.ts";
import { bringIn } from "../../test/sample-book.ts";

const links = (markdown: string, base: string | null = null): [string, string][] =>
  bringIn(markdown, base).chapters.flatMap((doc) =>
    linkUses(doc).map((use): [string, string] => [use.text, writeDestination(use.destination)]),
  );
const titles = (markdown: string): string[] =>
  bringIn(markdown).chapters.map((doc) => doc.firstChild!.textContent);

describe("chapters", () => {
  test("begin at headings of the first level, in both of their forms and in HTML", () => {
    expect(
      titles("# One\n\ntext\n\nTwo\n===\n\n<h1 align=center>Three</h1>\n\n<div><h1>Four</h1></div>"),
    ).toEqual(["One", "Two", "Three", "Four"]);
  });

  test("text before the first one gets a chapter with the fallback title", () => {
    expect(titles("Before.\n\n# One")).toEqual(["Untitled", "One"]);
    expect(bringIn("Before.\n\n# One")).toMatchObject({ title: "One", roles: ["unnumbered", "chapter"] });
    expect(bringIn("Before.").roles).toEqual(["chapter"]);
    expect(titles("")).toEqual(["Untitled"]);
    expect(titles("\uFEFF# One")).toEqual(["One"]);
  });
});

describe("links", () => {
  // CommonMark 0.31 sections 6.3, 6.5 and GFM autolinks: each of their forms.
  test.each([
    ["[t](https://a.example/b)", "https://a.example/b"],
    ["[t](<https://a.example/b c>)", "https://a.example/b%20c"],
    ["[t](https://a.example/(b))", "https://a.example/(b)"],
    ["[t][r]\n\n[r]: https://a.example/r 'Title'", "https://a.example/r"],
    ["[t][]\n\n[t]: https://a.example/t", "https://a.example/t"],
    ["[t]\n\n[T]: https://a.example/t", "https://a.example/t"],
    ['<a href="https://a.example/h">t</a>', "https://a.example/h"],
    ["[t](mailto:a@b.example)", "mailto:a@b.example"],
    ["[t](https://a.example/?a=1&amp;b=2)", "https://a.example/?a=1&b=2"],
    ["[t](//a.example/x)", "https://a.example/x"],
    ["[t](plan.pdf)", "plan.pdf"],
  ])("%j arrives", (markdown, address) => {
    expect(links(markdown)).toEqual([["t", address]]);
  });

  test("bare addresses arrive as GFM recognises them", () => {
    expect(links("<https://a.example/> and www.b.example/x, or me@c.example.")).toEqual([
      ["https://a.example/", "https://a.example/"],
      ["www.b.example/x", "http://www.b.example/x"],
      ["me@c.example", "mailto:me@c.example"],
    ]);
  });

  test("titles become descriptions", () => {
    expect(linkUses(bringIn('[t](https://a.example "Tide office")').chapters[0]!)[0]!.description).toBe(
      "Tide office",
    );
  });

  test("relative ones start from the base address where there is one", () => {
    expect(links("[t](../b?c#d)", "https://a.example/x/y")).toEqual([["t", "https://a.example/b?c#d"]]);
  });

  test("dangerous ones never arrive; their words do, and they are listed with their line", () => {
    const imported = bringIn(
      "# T\n\n[one](javascript:alert(1))\n\n<a href='data:text/html,x'>two</a>\n\n[three](VBSCRIPT:x)\n\n<script>alert(4)</script>",
    );
    expect(linkUses(imported.chapters[0]!)).toEqual([]);
    expect(imported.chapters[0]!.textContent).toBe("Tonetwothree");
    expect(imported.leftOut.map((item) => item.where)).toEqual(["line 3", "line 5", "line 7", "line 9"]);
  });

  test("a link without words is listed", () => {
    expect(bringIn("[](https://a.example/)").leftOut[0]!.what).toContain("https://a.example/");
  });
});

describe("captions", () => {
  const kinds = (markdown: string) =>
    bringIn(markdown).chapters[0]!.children.map(
      (node) =>
        `${node.type.name}${node.type.name === "caption" ? ` of ${node.attrs["of"]}: ${node.textContent}` : ""}`,
    );

  test("of figures stand after their picture, those of tables where they stood", () => {
    expect(
      kinds('# T\n\n<figure><img src="a.png" alt="A"><figcaption>The *Sound*</figcaption></figure>\n\nx'),
    ).toEqual(["title", "paragraph", "caption of figure: The *Sound*", "paragraph"]);
    expect(kinds("# T\n\n<table><caption>Times</caption><tr><td>a</td></tr></table>")).toEqual([
      "title",
      "caption of table: Times",
      "table",
    ]);
    expect(
      kinds("# T\n\n<figure><figcaption>Times</figcaption><table><tr><td>a</td></tr></table></figure>"),
    ).toEqual(["title", "caption of table: Times", "table"]);
  });

  test("are places that links lead to by their ids", () => {
    const { chapters } = bringIn(
      '# T\n\n[x](#k)\n\n<figure><img src="a.png" alt="A"><figcaption id="k">K</figcaption></figure>',
    );
    const [, caption] = placesOf(chapters[0]!);
    expect(caption).toMatchObject({ kind: "figure", text: "K" });
    expect(linkUses(chapters[0]!)[0]!.destination).toEqual({ kind: "place", target: caption!.id });
  });
});

test("the top, as web pages name it, is the top of the book", () => {
  for (const top of ["#", "#top"])
    expect(linkUses(bringIn(`# One\n\n# Two\n\n[x](${top})`).chapters[1]!)[0]!.destination).toEqual({
      kind: "place",
      target: "book-top",
    });
});

describe("places", () => {
  const target = (markdown: string, nth = 0): string => {
    const { chapters } = bringIn(markdown);
    const uses = chapters.flatMap((doc) => linkUses(doc));
    const id = writeDestination(uses[nth]!.destination).slice(1);
    let found = "";
    for (const doc of chapters) {
      doc.descendants((node) => {
        if (node.attrs["id"] === id) found = `${node.type.name}: ${node.textContent || node.attrs["name"]}`;
      });
    }
    return found;
  };

  test("links to headings lead to them, over chapters too, as file hosts name them", () => {
    expect(target("# One\n\n[x](#low-water)\n\n# Two\n\n## Low *water*!")).toBe("heading: Low water!");
    expect(target("# One\n\n[x](#one)")).toBe("title: One");
    expect(target("# One\n\n## Same\n\n## Same\n\n[x](#same-1)")).toBe("heading: Same");
  });

  test("links to named anchors lead to them; an anchor in a heading is the heading", () => {
    expect(target('# One\n\n<a id="spot"></a>Here. [x](#spot)')).toBe("anchor: spot");
    expect(target('# One\n\n## <a name="spot"></a>Low\n\n[x](#spot)')).toBe("heading: Low");
  });

  test("a link to no place is kept and listed", () => {
    const imported = bringIn("# One\n\ntext\n\n[x](#nowhere)");
    expect(links("# One\n\n[x](#nowhere)")).toEqual([["x", "#nowhere"]]);
    expect(imported.leftOut).toEqual([
      expect.objectContaining({ where: "line 5", why: expect.stringContaining("no such place") }),
    ]);
  });
});

test("terms one after the other are one list", () => {
  const [, list] = bringIn("# T\n\nEbb\n: out\n\nFlood\n: in\n\nText.").chapters[0]!.children;
  expect(list!.children.map(({ textContent }) => textContent)).toEqual(["Ebb", "out", "Flood", "in"]);
});

describe("text", () => {
  const outline = (markdown: string): string => bringIn(markdown).chapters[0]!.child(1).toString();

  test.each([
    ["**b** *i* `c`", 'paragraph(strong("b"), " ", emphasis("i"), " ", code("c"))'],
    ["- a\n- b", 'bullet_list(list_item(paragraph("a")), list_item(paragraph("b")))'],
    ["3. a", 'ordered_list(list_item(paragraph("a")))'],
    ["> a\n> # b", 'blockquote(paragraph("a"), heading("b"))'],
    ["```js\nx\n\ny\n```", 'code_block("x\\n\\ny")'],
    ["a  \nb", 'paragraph("a", hard_break, "b")'],
    ["***", "section_break"],
    ["- [x] a", 'bullet_list(list_item(paragraph("a")))'],
    [
      "<dl><dt>a<dd>b<dd>c</dl>",
      'definition_list(definition_term("a"), definition(paragraph("b")), definition(paragraph("c")))',
    ],
    [
      "Ebb\n: out\n: away\nof it\nFlood",
      'definition_list(definition_term("Ebb"), definition(paragraph("out")), definition(paragraph("away of it Flood")))',
    ],
    [
      "Ebb\n\n:   out\n\n: away",
      'definition_list(definition_term("Ebb"), definition(paragraph("out")), definition(paragraph("away")))',
    ],
    [
      "*Ebb* [tide](https://a.example)\n: out",
      'definition_list(definition_term(emphasis("Ebb"), " ", link("tide")), definition(paragraph("out")))',
    ],
    ["> Ebb\n> : out", 'blockquote(definition_list(definition_term("Ebb"), definition(paragraph("out"))))'],
    [": alone", 'paragraph(": alone")'],
    ["a:\n:b", 'paragraph("a: :b")'],
    ["<p align=center>a</p>", 'paragraph("a")'],
    ["a <math><mi>x</mi></math>", 'paragraph("a ", formula)'],
    [
      "| a |\n|--:|\n| b |",
      'table(table_row(table_header(paragraph("a"))), table_row(table_cell(paragraph("b"))))',
    ],
    ["<details><summary>s</summary>t</details>", 'paragraph("s")'],
    ["<table><tr><td rowspan=2>a</td></tr></table>", 'table(table_row(table_cell(paragraph("a"))))'],
    ["a &amp; b &lt;c&gt;", 'paragraph("a & b <c>")'],
  ])("%j", (markdown, expected) => {
    expect(outline(markdown)).toBe(expected);
  });

  test("formatting without a place in a manuscript loses its look, not its words, and is listed", () => {
    const imported = bringIn("# T\n\n<mark>old</mark> H2O\n\n###### deep");
    expect(imported.chapters[0]!.textContent).toBe("Told H2Odeep");
    expect(imported.leftOut.map(({ where, what }) => `${where} ${what.split(":")[0]}`)).toEqual([
      "line 3 Highlighting",
      "line 5 The heading “deep” of level 6",
    ]);
  });

  test("notes go with the chapter that refers to them; a note in a note is found", () => {
    const { chapters } = bringIn(
      "# One\n\na[^x]\n\n# Two\n\nb[^y]\n\n[^y]: Y[^z]\n\n[^x]: X\n\n[^z]: Z\n\n[^unused]: U",
    );
    expect(
      chapters.map((doc) =>
        doc.children.filter((node) => node.type.name === "note").map((n) => n.textContent),
      ),
    ).toEqual([["X"], ["Y", "Z", "U"]]);
  });

  test("pictures that were sent along are taken, others are listed and keep their words", () => {
    const imported = bringIn("# T\n\n![Map](pictures/map.png) ![Boat](boat.png)", null, (source) =>
      source.endsWith("map.png") ? "file-1" : null,
    );
    const found: [string | null, string][] = [];
    imported.chapters[0]!.descendants((node) => {
      if (node.type.name === "picture") found.push([pictureAttrs(node).file, pictureAttrs(node).alt]);
    });
    expect(found).toEqual([
      ["file-1", "Map"],
      [null, "Boat"],
    ]);
    expect(imported.leftOut).toHaveLength(1);
  });
});

test("no link is so long that it keeps the others out: it is left out with its reason, or its place is found", async () => {
  const name = "sands-".repeat(30);
  const long = "x".repeat(9_000);
  const text = `[far](https://a.example/${long}) [beside](${long}.html) [there](#${name}) [gone](#${long}) [sound](https://b.example/)\n\n<a id="${name}"></a>Here.`;
  const { chapters, arrival } = await bring(new TextEncoder().encode(text));
  expect(linkUses(chapters[0]!).map(({ text: words }) => words)).toEqual(["there", "gone", "sound"]);
  expect(arrival!.links.map(({ verdict, words, reason }) => [verdict, words, /8,000/.test(reason)])).toEqual([
    ["left-out", "far", true],
    ["left-out", "beside", true],
    ["intact", "there", false],
    ["changed", "gone", false],
    ["intact", "sound", false],
  ]);
});

describe("addresses without a sign around them (GFM 0.29, 6.9)", () => {
  const brought = async (markdown: string): Promise<[string[], unknown, string]> => {
    const { chapters, arrival } = await bring(new TextEncoder().encode(`# T\n\n${markdown}`));
    const { intact, changed, lost, extra } = arrival!.counts;
    const words = linkUses(chapters[0]!).map(({ text }) => text);
    return [words, [intact, changed, lost, extra], chapters[0]!.child(1).textContent];
  };

  test.each([
    ["In [https://b.example/y].", ["https://b.example/y"]],
    ["[ www.b.example (see a@b.example)", ["www.b.example", "a@b.example"]],
    ["[https://b.example/(y)], [https://b.example/z).]", ["https://b.example/(y)", "https://b.example/z"]],
    ["[l [https://a.example]](https://z.example '[https://t.example]')", ["l [https://a.example]"]],
    ["[r]\n\n[r]: https://z.example '[https://t.example]'", ["r"]],
    ["On the WWW. A copy, or [on www.]", []],
    ["`[https://a.example]`\n\n``` [https://a.example]\nx\n```", []],
  ])("in square brackets are links for both readers: %s", async (markdown, words) => {
    expect(await brought(markdown)).toEqual([words, [words.length, 0, 0, 0], expect.anything()]);
  });

  test("that are escaped are none, and nothing else is another for it", async () => {
    const escaped = String.raw`https\://a.example, \[https\://b.example/y\_z] www\.c.example *a\@e.example*`;
    const plain = "https://a.example, [https://b.example/y_z] www.c.example a@e.example";
    expect(await brought(escaped)).toEqual([[], [0, 0, 0, 0], plain]);
    const { chapters } = await bring(
      new TextEncoder().encode(String.raw`[a\*](https://z.example/\(x\) "t\"") <https://y.example> \*`),
    );
    expect(
      linkUses(chapters[0]!).map(({ text, destination, description }) => [
        text,
        writeDestination(destination),
        description,
      ]),
    ).toEqual([
      ["a*", "https://z.example/(x)", 't"'],
      ["https://y.example", "https://y.example/", null],
    ]);
    // Noncharacters stand for escapes meanwhile; those that a text has itself are no part of it.
    expect((await brought("a\ufdd9 \\* \ufdd0b"))[2]).toBe("a * b");
  });
});
