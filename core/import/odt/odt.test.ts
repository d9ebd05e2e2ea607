import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { redDot } from "../../test/red-dot.ts";
import { bearsDamage, bring, linksIn } from "../../test/brought.ts";

const namespaces = ["office", "text", "table", "draw", "xlink", "style", "fo", "svg", "dc"]
  .map((name) => `xmlns:${name}="urn:${name}"`)
  .join(" ");
const styles =
  '<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style><style:style style:name="P1" style:family="paragraph" style:parent-style-name="Quotations"/><text:list-style style:name="L1"><text:list-level-style-number text:level="1" text:start-value="3" style:num-format="1"/><text:list-level-style-bullet text:level="2"/></text:list-style>';
const document = (body: string, more: Record<string, Uint8Array> = {}): Uint8Array =>
  zipSync({
    mimetype: [strToU8("application/vnd.oasis.opendocument.text"), { level: 0 }],
    "content.xml": strToU8(
      `<?xml version="1.0"?><office:document-content ${namespaces}><office:automatic-styles>${styles}</office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`,
    ),
    "Pictures/m.png": redDot,
    ...more,
  });
const p = (words: string, style = ""): string =>
  `<text:p${style && ` text:style-name="${style}"`}>${words}</text:p>`;
const h = (level: number, words: string): string => `<text:h text:outline-level="${level}">${words}</text:h>`;
const a = (href: string, words: string, more = ""): string =>
  `<text:a xlink:href="${href}"${more}>${words}</text:a>`;

test("links lead outward, to bookmarks, headings, tables and what is beside the document, and say what is said of them", async () => {
  const bytes = document(
    [
      h(2, "Tides"),
      p(
        `See ${a("https://tides.example/", '<text:span text:style-name="T1">the</text:span> office', ' office:title="Hours"')}, ${a("#post", "the post")}, ${a("#1.1.Low%20water|outline", "low")}, ${a("#Gauges|table", "gauges")}, ${a("../plan.pdf", "plan")}.`,
      ),
      h(3, "Low water"),
      p(
        '<text:bookmark-start text:name="post"/>A post<text:bookmark-end text:name="post"/>, see <text:bookmark-ref text:ref-name="post" text:reference-format="text">it</text:bookmark-ref>.',
      ),
      `<table:table table:name="Gauges"><table:table-header-rows><table:table-row><table:table-cell table:number-columns-spanned="2">${p("Head")}</table:table-cell><table:covered-table-cell/></table:table-row></table:table-header-rows><table:table-row><table:table-cell>${p(a("https://a.example/", "cell"))}</table:table-cell><table:table-cell>${p("b")}</table:table-cell></table:table-row></table:table>`,
    ].join(""),
  );
  expect(await linksIn(bytes)).toEqual([
    ["the office", "https://tides.example/", "Hours"],
    ["the post", "→ post"],
    ["low", "→ Low water"],
    ["gauges", "→ Gauges|table"],
    ["plan", "plan.pdf"],
    ["it", "→ post"],
    ["cell", "https://a.example/"],
  ]);
  const { title, chapters } = await bring(bytes);
  expect([title, chapters.length]).toEqual(["Tides", 1]);
});

test("notes, lists, quotations, text boxes, pictures with links and areas come along; deleted words and comments are told", async () => {
  const picture =
    '<draw:frame draw:name="Map"><draw:image xlink:href="Pictures/m.png"/><svg:title>The map</svg:title><draw:image-map><draw:area-rectangle xlink:href="https://area.example/"><svg:title>The head</svg:title></draw:area-rectangle></draw:image-map></draw:frame>';
  const bytes = document(
    [
      `<text:tracked-changes>${p("gone")}</text:tracked-changes>`,
      h(1, "Tides"),
      p(
        `Noted<text:note text:id="n1" text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body>${p(a("https://note.example/", "noted"))}</text:note-body></text:note><office:annotation><dc:creator>Pell</dc:creator>${p("Sure?")}</office:annotation><draw:frame><draw:text-box>${p(a("https://box.example/", "boxed"))}</draw:text-box></draw:frame>`,
      ),
      `<text:list text:style-name="L1"><text:list-item>${p("one")}<text:list><text:list-item>${p("deep")}</text:list-item></text:list></text:list-item><text:list-item>${p("two")}</text:list-item></text:list>`,
      p("Quoted", "P1"),
      p("again", "Quotations"),
      p(`<draw:a xlink:href="https://picture.example/">${picture}</draw:a>`),
    ].join(""),
  );
  const { chapters, pictures, leftOut } = await bring(bytes);
  expect(pictures).toHaveLength(1);
  expect((await linksIn(bytes)).map((link) => (link as string[])[1])).toEqual(
    expect.arrayContaining(["https://note.example/", "https://box.example/", "https://picture.example/"]),
  );
  const blocks = chapters[0]!.children.map(({ type }) => type.name);
  expect(blocks).toEqual([
    "title",
    "paragraph",
    "paragraph",
    "ordered_list",
    "blockquote",
    "paragraph",
    "note",
  ]);
  expect([chapters[0]!.child(3).attrs["start"], chapters[0]!.child(4).childCount]).toEqual([3, 2]);
  expect(chapters[0]!.textContent).not.toContain("gone");
  expect(leftOut.map(({ what }) => what)).toEqual(
    expect.arrayContaining(["Words that were deleted and not yet agreed to", "A comment of Pell: “Sure?”"]),
  );
});

test("a locked or damaged document is refused in a word", async () => {
  const locked = document(p("x"), {
    "META-INF/manifest.xml": strToU8('<manifest:encryption-data manifest:checksum="x"/>'),
  });
  await expect(bring(locked)).rejects.toMatchObject({ message: expect.stringContaining("password") });
  const sound = document(p(a("https://tides.example/", "tides")));
  await bearsDamage(sound);
});

test("headings that the document numbers by its outline or by lists are numbered by the book", async () => {
  const outline = (format: string): Record<string, Uint8Array> => ({
    "styles.xml": strToU8(
      `<office:document-styles ${namespaces}><office:styles><text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="${format}"/><text:outline-level-style text:level="2" style:num-format=""/></text:outline-style></office:styles></office:document-styles>`,
    ),
  });
  const levels = async (body: string, format: string): Promise<number | undefined> =>
    (await bring(document(body, outline(format)))).conventions?.headings;
  const body = [h(1, "Tides"), h(2, "Low water"), h(1, "Refuges")].join("");
  expect(await levels(body, "1")).toBe(1);
  expect(await levels(body, "")).toBeUndefined();
  expect(
    await levels(body.replaceAll("<text:h ", '<text:h text:is-list-header="true" '), "1"),
  ).toBeUndefined();
  const listed = `<text:list text:style-name="L1"><text:list-item>${h(1, "Tides")}</text:list-item></text:list>`;
  expect(await levels(listed, "")).toBe(1);
});

test("a bookmark anywhere in a heading is that heading for both readers", async () => {
  const mark = (name: string): string => `<text:bookmark text:name="${name}"/>`;
  const names = ["begin", "middle", "end", "behind"];
  const body = [
    h(1, `${mark("begin")}Low ${mark("middle")}water${mark("end")}`),
    p(`${mark("behind")}Slack water.`),
    p(names.map((to) => a(`#${to}`, to)).join(", ")),
  ].join("");
  const { links } = (await bring(document(body))).arrival!;
  expect(links.map(({ words, verdict }) => `${words}: ${verdict}`)).toEqual(
    names.map((name) => `${name}: intact`),
  );
});

test("a document is in the language that it says, else in that of its usual letters", async () => {
  const usual = (fonts: string): Uint8Array =>
    strToU8(
      `<office:document-styles ${namespaces}><office:styles><style:default-style style:family="graphic"><style:text-properties fo:language="it"/></style:default-style><style:default-style style:family="paragraph"><style:text-properties ${fonts}/></style:default-style></office:styles></office:document-styles>`,
    );
  const fonts =
    'fo:language="de" fo:country="AT" style:language-asian="zh" style:country-asian="TW" style:language-complex="he" style:country-complex="IL"';
  const said = strToU8(
    `<office:document-meta ${namespaces}><office:meta><dc:language>fr</dc:language></office:meta></office:document-meta>`,
  );
  const language = async (words: string, more: Record<string, Uint8Array>) =>
    (await bring(document(p(words), more))).language;
  expect(await language("Bei Ebbe liegt der Stein frei.", { "styles.xml": usual(fonts) })).toBe("de-AT");
  expect(
    await language("Bei Ebbe liegt der Stein frei.", { "styles.xml": usual(fonts), "meta.xml": said }),
  ).toBe("fr");
  expect(await language("潮水退去，石頭露出來。", { "styles.xml": usual(fonts) })).toBe("zh-TW");
  expect(await language("בשפל האבן נחשפת.", { "styles.xml": usual(fonts) })).toBe("he-IL");
  expect(await language("При отливе камень виден.", { "styles.xml": usual(fonts) })).toBe("ru");
  expect(
    await language("Bei Ebbe liegt der Stein frei.", { "styles.xml": usual('fo:language="none"') }),
  ).toBeNull();
});

test("references to a heading's page arrive beside those to its words, whichever comes first, and beside contents", async () => {
  const to = (format: string, words: string): string =>
    `<text:bookmark-ref text:reference-format="${format}" text:ref-name="low">${words}</text:bookmark-ref>`;
  const note =
    '<text:note text:id="n1"><text:note-citation>1</text:note-citation><text:note-body><text:p>First.</text:p></text:note-body></text:note>';
  const bytes = document(
    [
      h(1, "Tides"),
      p(a("#low", "Low water24")),
      p(`On page ${to("page", "24")}, in “${to("text", "Low water")}”${note}.`),
      p(`In “${to("text", "Low water")}”, on page ${to("page", "24")}.`),
      h(2, '<text:bookmark-start text:name="low"/>Low water<text:bookmark-end text:name="low"/>'),
      p("Bare stones."),
    ].join(""),
  );
  const { arrival } = await bring(bytes);
  expect(arrival!.counts).toMatchObject({ lost: 0, extra: 0, "left-out": 0 });
  expect(
    arrival!.links.filter(({ verdict }) => verdict === "changed").map(({ words, sort }) => [words, sort]),
  ).toEqual([
    ["24", "Page numbers that follow their places now"],
    ["24", "Page numbers that follow their places now"],
  ]);
});

test("what is drawn gives its words, and tells of its links; paragraphs with a number of their own are paragraphs", async () => {
  const shape = (words: string, more = ""): string =>
    `<draw:custom-shape draw:name="S">${more}<svg:title>T</svg:title>${p(words)}</draw:custom-shape>`;
  const click =
    '<office:event-listeners><script:event-listener xmlns:script="urn:s" xlink:href="https://event.example/"/></office:event-listeners>';
  const bytes = document(
    [
      h(1, "Tides"),
      p(`${shape(`Low ${a("https://a.example/", "water")}`, click)}Beside it.`),
      `<draw:g>${shape("On the page")}<draw:line/></draw:g>`,
      p(`<draw:a xlink:href="https://rect.example/"><draw:rect>${p("Rect")}</draw:rect></draw:a> after.`),
      `<text:numbered-paragraph>${p("Numbered")}</text:numbered-paragraph>`,
      p("Script <text:script>alert(1)</text:script>none."),
    ].join(""),
  );
  const { chapters, arrival, leftOut } = await bring(bytes);
  expect(chapters[0]!.children.slice(1).map(({ textContent }) => textContent)).toEqual([
    "Beside it.",
    "Low water",
    "On the page",
    "Rect after.",
    "Numbered",
    "Script none.",
  ]);
  expect(arrival!.links.map(({ words, verdict }) => [words, verdict])).toEqual([
    ["water", "intact"],
    ["Rect", "intact"],
  ]);
  expect(leftOut.map(({ sort, what }) => [sort, what])).toEqual([
    ["Links on drawn shapes", "A link on a drawn shape to https://event.example/"],
  ]);
});

test("a heading with a note is where links to it lead, and empty cells that are written once stand as often as they say", async () => {
  const note = `<text:note text:id="n"><text:note-citation>1</text:note-citation><text:note-body>${p(`By day, see ${a("https://a.example/", "hours")}.`)}</text:note-body></text:note>`;
  const row =
    '<table:table-cell table:number-columns-repeated="2"/><table:table-cell><text:p>x</text:p></table:table-cell>';
  const bytes = document(
    [
      `<text:h text:outline-level="1">Low${note}</text:h>`,
      p(`Water, see ${a("#Low|outline", "low")}.`),
      `<table:table><table:table-row>${row}</table:table-row><table:table-row table:number-rows-repeated="1000"/></table:table>`,
    ].join(""),
  );
  const { chapters, arrival } = await bring(bytes);
  expect(arrival!.links.map(({ words, verdict }) => [words, verdict])).toEqual([
    ["low", "intact"],
    ["hours", "intact"],
  ]);
  const [first] = chapters[0]!.child(2).children;
  expect(first!.children.map(({ textContent }) => textContent)).toEqual(["", "", "x"]);
});

test("a document whose text is in UTF-16, as XML may be, is read in it by both readers", async () => {
  const content = `<?xml version="1.0" encoding="UTF-16"?><office:document-content ${namespaces}><office:body><office:text>${h(1, "Fährte")}${p(a("https://tides.example/", "Höhe"))}</office:text></office:body></office:document-content>`;
  const bytes = document("", { "content.xml": new Uint8Array(Buffer.from(`\ufeff${content}`, "utf16le")) });
  expect((await bring(bytes)).title).toBe("Fährte");
  expect(await linksIn(bytes)).toEqual([["Höhe", "https://tides.example/"]]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
});

const linksOfArrival = async (body: string): Promise<string[][]> =>
  (await bring(document(body))).arrival!.links.map(({ verdict, sort, words }) => [verdict, sort, words]);

test("an entry of contents that is two links, its words and the number of a page, arrives as one", async () => {
  const entry = (words: string): string =>
    p(`${a(`#1.${words}|outline`, words)}<text:tab/>${a(`#1.${words}|outline`, "3")}`);
  const entries = `${entry("Low water")}${entry("Ebb")}`;
  const contents = `<text:table-of-content><text:index-body>${entries}</text:index-body></text:table-of-content>`;
  const text = `${h(1, "Low water")}${p(`See ${a("#1.Ebb|outline", "4")}.`)}${h(1, "Ebb")}`;
  expect(await linksOfArrival(contents + text)).toEqual([
    ["intact", "", "Low water"],
    ["left-out", "Page numbers in lists", "3"],
    ["intact", "", "Ebb"],
    ["left-out", "Page numbers in lists", "3"],
    // A number in the text is a link like others.
    ["intact", "", "4"],
  ]);
});

test("a reference in other capitals than its target says the target’s, which is told", async () => {
  const low = '<text:bookmark-start text:name="low"/>Low water<text:bookmark-end text:name="low"/>';
  const see =
    '<text:bookmark-ref text:ref-name="low" text:reference-format="text">Low Water</text:bookmark-ref>';
  expect(await linksOfArrival(`${h(1, low)}${p(`See ${see}.`)}`)).toEqual([
    ["changed", "Links with other words", "Low Water"],
  ]);
});
