import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { strToU8, unzipSync, zipSync } from "fflate";
import { linkUses } from "../../manuscript/links.ts";
import { placesOf } from "../../manuscript/outline.ts";
import { writeDocx } from "../../publish/formats/docx/write-docx.ts";
import { openExport } from "../../proof/exported-folder.ts";
import { bookOfEveryFeature } from "../../test/book-of-every-feature.ts";
import { redDot } from "../../test/red-dot.ts";
import { bring, isReadOrRefused, linksIn } from "../../test/brought.ts";
import { document, namespaces, p, styled, t, type } from "../../test/small-docx.ts";

const mark = (kind: string): string => `<w:r><w:fldChar w:fldCharType="${kind}"/></w:r>`;
const field = (instruction: string, ...result: string[]): string =>
  [
    mark("begin"),
    `<w:r><w:instrText>${instruction}</w:instrText></w:r>`,
    mark("separate"),
    ...result,
    mark("end"),
  ].join("");
const bookmark = (name: string): string =>
  `<w:bookmarkStart w:id="1" w:name="${name}"/><w:bookmarkEnd w:id="1"/>`;
const headings =
  '<w:styles><w:style w:styleId="U1"><w:name w:val="heading 1"/></w:style><w:style w:styleId="Own"><w:basedOn w:val="U1"/><w:name w:val="Überschrift eigen"/></w:style><w:style w:styleId="U2"><w:name w:val="heading 2"/></w:style><w:style w:styleId="Deep"><w:name w:val="Deep"/><w:pPr><w:outlineLvl w:val="1"/></w:pPr></w:style></w:styles>';

describe("links of a text document", () => {
  test("as elements: outward, to a bookmark in whatever letters, with what is said of them", async () => {
    const bytes = document(
      [
        p(
          `<w:hyperlink r:id="o" w:tooltip="Hours">${t("the ")}${t("office", "<w:b/>")}</w:hyperlink>${t(" and ")}<w:hyperlink w:anchor="POST">${t("the post")}</w:hyperlink>`,
        ),
        p(bookmark("post"), t("A post.")),
        p(`<w:hyperlink r:id="o" w:anchor="low">${t("low water")}</w:hyperlink>`),
      ].join(""),
      {},
      { o: "https://tides.example/" },
    );
    expect(await linksIn(bytes)).toEqual([
      ["the office", "https://tides.example/", "Hours"],
      ["the post", "→ post"],
      ["low water", "https://tides.example/#low"],
    ]);
  });

  test("as fields: split over runs and paragraphs, within each other, with switches, without an element of their own", async () => {
    const outer = 'HYPERLINK "https://tides.example/a b" \\o "By day" \\t "_blank"';
    const split = [
      mark("begin"),
      '<w:r><w:instrText> HYPER</w:instrText></w:r><w:r><w:instrText>LINK \\l "post" </w:instrText></w:r>',
      mark("separate"),
      t("over"),
    ].join("");
    const said = (words: string): string => `<w:r><w:instrText>${words}</w:instrText></w:r>`;
    const asking = [
      mark("begin"),
      said('HYPERLINK "https://'),
      field("QUOTE x", t("inner.example")),
      said('/"'),
      mark("separate"),
      t("asked"),
      mark("end"),
    ].join("");
    const bytes = document(
      [
        p(bookmark("post"), t("A post. "), field(outer, t("by day"))),
        p(split),
        p(t("two"), mark("end"), t(" plain")),
        p(
          `<w:fldSimple w:instr=" HYPERLINK &quot;mailto:wardens@causeways.example&quot; ">${t("write")}</w:fldSimple>`,
        ),
        p(
          t("See "),
          field(" REF post \\h ", t("the post")),
          t(" on page "),
          field(" PAGEREF post \\h ", t("4")),
          t(", "),
          field(" REF other ", t("frozen")),
        ),
        p(asking),
      ].join(""),
    );
    expect(await linksIn(bytes)).toEqual([
      ["by day", "https://tides.example/a%20b", "By day"],
      ["over two", "→ post"],
      ["write", "mailto:wardens@causeways.example"],
      ["the post", "→ post"],
      ["(its page)", "→ post"],
      ["asked", "https://inner.example/"],
    ]);
  });

  test("on pictures, with their alternatives; in notes; in text boxes, tables and lists", async () => {
    const picture = `<w:r><w:drawing><wp:docPr descr="Sketch map"><a:hlinkClick r:id="o"/></wp:docPr><pic:pic><a:blip r:embed="map"/></pic:pic></w:drawing></w:r>`;
    const box = `<w:r><mc:AlternateContent><mc:Choice><w:drawing><wps:txbx><w:txbxContent>${p(`<w:hyperlink r:id="o">${t("boxed")}</w:hyperlink>`)}</w:txbxContent></wps:txbx></w:drawing></mc:Choice><mc:Fallback><w:pict><v:textbox><w:txbxContent>${p(t("boxed"))}</w:txbxContent></v:textbox></w:pict></mc:Fallback></mc:AlternateContent></w:r>`;
    const link = (words: string): string => `<w:hyperlink r:id="o">${t(words)}</w:hyperlink>`;
    const bytes = document(
      [
        p(picture),
        p(t("Noted"), '<w:r><w:footnoteReference w:id="2"/></w:r>', box),
        `<w:tbl><w:tr><w:trPr><w:tblHeader/></w:trPr><w:tc><w:tcPr><w:gridSpan w:val="2"/></w:tcPr>${p(link("head"))}</w:tc></w:tr><w:tr><w:tc><w:tcPr><w:vMerge w:val="restart"/></w:tcPr>${p(t("tall"))}</w:tc><w:tc>${p(link("cell"))}</w:tc></w:tr><w:tr><w:tc><w:tcPr><w:vMerge/></w:tcPr>${p()}</w:tc><w:tc>${p(t("low"))}</w:tc></w:tr></w:tbl>`,
        p('<w:pPr><w:numPr><w:ilvl w:val="0"/><w:numId w:val="3"/></w:numPr></w:pPr>', link("item")),
        p('<w:pPr><w:numPr><w:ilvl w:val="1"/><w:numId w:val="3"/></w:numPr></w:pPr>', link("deeper")),
      ].join(""),
      {
        footnotes: `<w:footnotes><w:footnote w:type="separator" w:id="0">${p()}</w:footnote><w:footnote w:id="2">${p("<w:r><w:footnoteRef/></w:r>", link("noted"))}</w:footnote></w:footnotes>`,
        numbering:
          '<w:numbering><w:abstractNum w:abstractNumId="7"><w:lvl w:ilvl="0"><w:start w:val="4"/><w:numFmt w:val="decimal"/></w:lvl><w:lvl w:ilvl="1"><w:numFmt w:val="bullet"/></w:lvl></w:abstractNum><w:num w:numId="3"><w:abstractNumId w:val="7"/></w:num></w:numbering>',
      },
      { o: "https://tides.example/" },
    );
    const { chapters, pictures } = await bring(bytes);
    expect((await linksIn(bytes)).map((link) => (link as string[])[0])).toEqual([
      "Sketch map",
      "boxed",
      "head",
      "cell",
      "item",
      "deeper",
      "noted",
    ]);
    expect(pictures).toMatchObject([{ name: "map.png", bytes: new Uint8Array(redDot) }]);
    const [, , , , table, list] = chapters[0]!.children;
    expect(table!.firstChild!.firstChild!.type.name).toBe("table_header");
    expect(table!.child(1).firstChild!.attrs).toMatchObject({ rowspan: 2, colspan: 1 });
    expect([list!.type.name, list!.attrs["start"], list!.firstChild!.child(1).type.name]).toEqual([
      "ordered_list",
      4,
      "bullet_list",
    ]);
  });

  test("headings are known by style, in any language, by what a style is based on, and by outline level", async () => {
    const bytes = document(
      [
        styled("U1", t("Tides")),
        styled("Deep", bookmark("_Toc1"), t("Low water")),
        styled("Own", t("Ways")),
        p('<w:pPr><w:outlineLvl w:val="1"/></w:pPr>', t("By foot")),
        p(`<w:hyperlink w:anchor="_Toc1">${t("low")}</w:hyperlink>${bookmark("_Ref9")}`),
      ].join(""),
      { styles: headings },
    );
    const { title, chapters } = await bring(bytes);
    expect([title, chapters.map((doc) => placesOf(doc).map(({ kind, text }) => `${kind} ${text}`))]).toEqual([
      "Tides",
      [
        ["title Tides", "heading Low water"],
        ["title Ways", "heading By foot"],
      ],
    ]);
    expect(await linksIn(bytes)).toEqual([["low", "→ Low water"]]);
  });
});

test("what is deleted, commented on, or stands on every page is left out and told", async () => {
  const bytes = document(
    p(
      t("Kept "),
      `<w:ins>${t("put in")}</w:ins>`,
      `<w:del><w:r><w:delText>gone</w:delText></w:r></w:del>`,
      t("hidden", "<w:vanish/>"),
    ),
    {
      comments: `<w:comments><w:comment w:author="Pell">${p(t("Sure?"))}</w:comment></w:comments>`,
      header: `<w:hdr>${p(t("Walks, page "), field("PAGE", t("3")))}</w:hdr>`,
    },
  );
  const { chapters, leftOut } = await bring(bytes);
  expect(chapters[0]!.textContent).toBe("WalksKept put in");
  expect(leftOut.map(({ where, what }) => [where, what])).toEqual([
    ["paragraph 1", "Words that were deleted and not yet agreed to"],
    [null, "A comment of Pell: “Sure?”"],
    [null, "The head or foot of pages: “Walks, page 3”"],
  ]);
});

test("our own text document comes in again with every link, leading where it led", async () => {
  const book = bookOfEveryFeature();
  const { main } = openExport((await writeDocx(book, "walks.docx")).bytes);
  const links = await linksIn(main);
  const own = book.chapters
    .flatMap(({ doc }) => linkUses(doc))
    .filter(({ on, destination }) => on === "words" && destination.kind === "web");
  for (const { text, destination } of own)
    expect(links).toContainEqual(
      expect.arrayContaining([text, destination.kind === "web" ? destination.address : ""]),
    );
  expect(links.filter(([, to]) => to === "→ nowhere")).toEqual([]);
});

describe("a damaged document", () => {
  test("is refused in a word or read, whatever was cut or turned, and nothing else happens", async () => {
    const { main } = openExport((await writeDocx(bookOfEveryFeature(), "walks.docx")).bytes);
    const parts = unzipSync(main);
    await fc.assert(
      fc.asyncProperty(
        fc.nat(),
        fc.nat(255),
        fc.constantFrom("flip", "cut", "part"),
        async (at, byte, how) => {
          let bytes = main.slice();
          if (how === "cut") bytes = bytes.slice(0, at % bytes.length);
          else if (how === "flip") bytes[at % bytes.length] = byte;
          else {
            const text = parts["word/document.xml"]!.slice();
            text[at % text.length] = byte;
            bytes = zipSync({ ...parts, "word/document.xml": text }, { level: 0 });
          }
          await isReadOrRefused(bytes);
        },
      ),
      { numRuns: 150 },
    );
  });

  test("that would grow beyond measure is refused before it is unpacked; entities are not followed", async () => {
    const bomb = document("");
    // The size of the first part, as the container's own list tells it (APPNOTE 4.3.12).
    const listed = Buffer.from(bomb).indexOf("PK\u0001\u0002");
    new DataView(bomb.buffer).setUint32(listed + 24, 420 * 1024 * 1024, true);
    await expect(bring(bomb)).rejects.toMatchObject({ code: "format" });
    const entities = document("").slice();
    const parts = unzipSync(entities);
    const text = `<!DOCTYPE d [<!ENTITY a "aaaaaaaaaa"><!ENTITY b SYSTEM "file:///etc/passwd">]><w:document ${namespaces}><w:body>${p(t("&b;"))}</w:body></w:document>`;
    await expect(bring(zipSync({ ...parts, "word/document.xml": strToU8(text) }))).rejects.toMatchObject({
      code: "format",
    });
  });
});

describe("what follows its target in a text document follows it in the book", () => {
  const bookmarked = (name: string, id: number, ...content: string[]): string =>
    `<w:bookmarkStart w:id="${id}" w:name="${name}"/>${content.join("")}<w:bookmarkEnd w:id="${id}"/>`;
  const heading = (level: number, ...content: string[]): string =>
    p(`<w:pPr><w:outlineLvl w:val="${level - 1}"/></w:pPr>`, ...content);
  const caption = (label: string, number: string, words: string): string =>
    p(t(`${label} `), field(` SEQ ${label} \\* ARABIC `, t(number)), t(`: ${words}`));
  const kinds = async (body: string): Promise<string[]> => {
    const { chapters } = await bring(document(body));
    const found: string[] = [];
    for (const doc of chapters)
      doc.descendants((node) => {
        const { form, of, scope, depth } = node.attrs as Record<string, unknown>;
        if (node.type.name === "cross_reference") found.push(`reference: ${String(form)}`);
        if (node.type.name === "caption") found.push(`caption of ${String(of)}: ${node.textContent}`);
        if (node.type.name === "signposts")
          found.push(`list: ${String(of)} ${String(scope)} ${String(depth)}`);
        if (node.type.name === "note_reference") found.push("note");
      });
    return found;
  };

  test("references by words, by a caption's number and by page are cross-references, where they say the same", async () => {
    const body = [
      heading(1, bookmarked("_Ref1", 1, t("Low water"))),
      p(
        t("See "),
        field(" REF _Ref1 \\h ", t("Low water")),
        t(" on page "),
        field(" PAGEREF _Ref1 \\h ", t("7")),
      ),
      p(bookmarked("_Ref2", 2, t("Figure "), field(" SEQ Figure ", t("1"))), t(": The sound")),
      p(
        t("See "),
        field(" REF _Ref2 \\h ", t("Figure 1")),
        t(" or "),
        field(" REF _Ref1 \\h ", t("another name")),
      ),
      p(t("on leaf "), field(" PAGEREF _Ref1 \\h ", t("7"))),
    ].join("");
    expect(await kinds(body)).toEqual([
      "reference: text",
      "reference: page",
      "caption of figure: The sound",
      "reference: number",
    ]);
    const { chapters, arrival } = await bring(document(body));
    // The word for the page belongs to the reference; what says something else stays a link.
    expect(chapters[0]!.child(1).textContent).toBe("See  on ");
    expect(linkUses(chapters[0]!).map(({ text }) => text)).toContain("another name");
    expect(arrival!.counts).toMatchObject({ intact: 4, changed: 1, lost: 0, extra: 0 });
  });

  test("a bookmark within a heading is that heading, and the link to it is intact", async () => {
    const body = [
      heading(1, t("Low "), bookmarked("_Ref1", 1, t("water"))),
      heading(2, t("Refuges"), bookmark("end")),
      p(t("Slack water. "), bookmark("behind"), t("Boxes on stilts.")),
      p(
        ["_Ref1", "end", "behind"]
          .map((to) => `<w:hyperlink w:anchor="${to}">${t(to)}</w:hyperlink>`)
          .join(""),
      ),
    ].join("");
    expect(await linksIn(document(body))).toMatchObject([
      ["_Ref1", "→ Low water"],
      ["end", "→ Refuges"],
      ["behind", "→ behind"],
    ]);
    const { links } = (await bring(document(body))).arrival!;
    expect(links.map(({ words, verdict }) => `${words}: ${verdict}`)).toEqual([
      "_Ref1: intact",
      "end: intact",
      "behind: intact",
    ]);
  });

  test("a reference that is no jump is one in the book, where it says the same; else it stays words", async () => {
    const body = [
      heading(1, bookmarked("_Ref1", 1, t("Low water"))),
      p(
        field(" REF _Ref1 ", t("Low water")),
        t(" on page "),
        field(" PAGEREF _Ref1 ", t("7")),
        t(", "),
        field(" REF _Ref1 \\h ", t("another name")),
        t(", "),
        field(" REF _Ref1 ", t("another name")),
        t(", "),
        field(" REF nowhere ", t("gone")),
      ),
    ].join("");
    expect(await kinds(body)).toEqual(["reference: text", "reference: page"]);
    const { chapters, arrival } = await bring(document(body));
    expect(chapters[0]!.child(1).textContent).toBe(" on , another name, another name, gone");
    expect(linkUses(chapters[0]!).map(({ text }) => text)).toEqual([
      "(its text)",
      "(its page)",
      "another name",
    ]);
    expect(arrival!.counts).toMatchObject({ intact: 1, changed: 2, lost: 0, extra: 0 });
    expect(arrival!.links.map(({ sort }) => sort)).toEqual([
      "",
      "References that lead to their places now",
      "References that lead to their places now",
    ]);
  });

  test("headings that the document numbers are numbered by the book, and references by number follow them", async () => {
    const inList = (level: number, number: number): string =>
      `<w:pPr><w:outlineLvl w:val="${level - 1}"/><w:numPr><w:ilvl w:val="${level - 1}"/><w:numId w:val="${number}"/></w:numPr></w:pPr>`;
    const numbering =
      '<w:numbering><w:abstractNum w:abstractNumId="7"><w:lvl w:ilvl="0"><w:numFmt w:val="decimal"/><w:lvlText w:val="%1"/></w:lvl><w:lvl w:ilvl="1"><w:numFmt w:val="decimal"/><w:lvlText w:val="%1.%2"/></w:lvl><w:lvl w:ilvl="2"><w:numFmt w:val="decimal"/><w:lvlText w:val=""/></w:lvl></w:abstractNum><w:num w:numId="3"><w:abstractNumId w:val="7"/></w:num></w:numbering>';
    const bytes = document(
      [
        p(inList(1, 3), t("Ways")),
        p(inList(2, 3), bookmarked("_Ref1", 1, t("Low water"))),
        p(inList(3, 3), t("By day")),
        p(t("See "), field(" REF _Ref1 \\r \\h ", t("1.1"))),
        p(inList(1, 3), t("Refuges")),
        p(inList(2, 0), t("Bare")),
        p(inList(1, 0), t("Thanks")),
        p(inList(2, 0), t("To the wardens")),
      ].join(""),
      { numbering },
    );
    const { chapters, conventions, leftOut, roles, arrival } = await bring(bytes);
    expect(conventions?.headings).toBe(2);
    expect(roles).toEqual(["chapter", "chapter", "unnumbered"]);
    expect(chapters[0]!.lastChild!.lastChild!.attrs).toMatchObject({ form: "number" });
    expect(arrival!.counts).toMatchObject({ intact: 1, changed: 0, lost: 0 });
    expect(leftOut).toMatchObject([{ what: "The heading “Bare”", where: "paragraph 6" }]);
  });

  test("captions are captions where the book counts them alike, and else stay what they are", async () => {
    expect(
      await kinds(caption("Figure", "1", "A") + caption("Table", "1", "B") + caption("Figure", "2", "C")),
    ).toEqual(["caption of figure: A", "caption of table: B", "caption of figure: C"]);
    expect(await kinds(caption("Figure", "1", "A") + caption("Figure", "3", "C"))).toEqual([]);
  });

  test("a list of contents is a signpost list, and a heading in which its field ends is none of it", async () => {
    const entry = (place: string, words: string): string => field(` HYPERLINK \\l "${place}" `, t(words));
    const body = [
      p(
        mark("begin"),
        '<w:r><w:instrText> TOC \\o "1-2" </w:instrText></w:r>',
        mark("separate"),
        entry("_Toc1", "Tides 1"),
      ),
      p(entry("_Toc2", "Low water 2")),
      heading(1, mark("end"), bookmarked("_Toc1", 1, t("Tides"))),
      heading(2, bookmarked("_Toc2", 2, t("Low water"))),
    ].join("");
    expect(await kinds(body)).toEqual(["list: contents book 2"]);
    const { chapters, arrival } = await bring(document(body));
    expect(chapters.map((doc) => doc.textContent).join("|")).toContain("Tides");
    expect(arrival!.counts).toMatchObject({ intact: 2, lost: 0, extra: 0 });
  });

  test("a note's number told again is its sign once more", async () => {
    const bytes = document(
      p(
        t("a"),
        bookmarked("_RefN", 1, '<w:r><w:footnoteReference w:id="2"/></w:r>'),
        t(" b"),
        field(" NOTEREF _RefN \\h ", t("1")),
      ),
      { footnotes: `<w:footnotes><w:footnote w:id="2">${p(t("By day."))}</w:footnote></w:footnotes>` },
    );
    const { chapters, arrival } = await bring(bytes);
    const signs: unknown[] = [];
    chapters[0]!.descendants((node) => {
      if (node.type.name === "note_reference") signs.push(node.attrs["note"]);
    });
    expect(signs).toHaveLength(2);
    expect(new Set(signs).size).toBe(1);
    expect(arrival!.counts).toMatchObject({ lost: 0, extra: 0 });
  });

  test("and in another chapter than the note's it is the number of that note", async () => {
    const bytes = document(
      [
        heading(1, t("Tides")),
        p(t("a"), bookmarked("_RefN", 1, '<w:r><w:footnoteReference w:id="2"/></w:r>')),
        heading(1, t("Sands")),
        p(t("b"), field(" NOTEREF _RefN \\h ", t("1"))),
      ].join(""),
      { footnotes: `<w:footnotes><w:footnote w:id="2">${p(t("By day."))}</w:footnote></w:footnotes>` },
    );
    const { chapters, arrival } = await bring(bytes);
    const [, again] = chapters;
    const [use] = linkUses(again!);
    const note = chapters[0]!.lastChild!;
    expect(use).toMatchObject({ on: "reference", destination: { target: note.attrs["id"] } });
    expect(arrival!.counts).toMatchObject({ lost: 0, extra: 0 });
  });

  test("words in another language than the document's are marked, and those in its own are not", async () => {
    const styles =
      '<w:styles><w:docDefaults><w:rPrDefault><w:rPr><w:lang w:val="en-GB"/></w:rPr></w:rPrDefault></w:docDefaults></w:styles>';
    const body = p(t("Low water, ", '<w:lang w:val="en-US"/>'), t("marée basse", '<w:lang w:val="fr-FR"/>'));
    const { chapters, language } = await bring(document(body, { styles }));
    const marked: string[] = [];
    chapters[0]!.descendants(({ text, marks }) => {
      for (const { type: kind, attrs } of marks)
        if (kind.name === "language") marked.push(`${text!}: ${String(attrs["tag"])}`);
    });
    expect(marked).toEqual(["marée basse: fr-FR"]);
    expect(language).toBe("en-GB");
  });

  test("is in the language that is said of its letters, and a keyboard's at words of another script is none of theirs", async () => {
    const styles =
      '<w:styles><w:docDefaults><w:rPrDefault><w:rPr><w:lang w:val="en-US" w:eastAsia="ja-JP" w:bidi="fa-IR"/></w:rPr></w:rPrDefault></w:docDefaults></w:styles>';
    const inLanguage = async (words: string, run: string) => {
      const body = p(t(words), t(run, '<w:lang w:val="en-US"/>'));
      const { chapters, language } = await bring(document(body, { styles }));
      const marks = chapters[0]!.lastChild!.children.flatMap((one) =>
        one.marks.map(({ attrs }) => attrs["tag"]),
      );
      return [language, marks];
    };
    expect(await inLanguage("Low water bares the stone. ", "Go.")).toEqual(["en-US", []]);
    expect(await inLanguage("潮が引くと石が現れる。", "歩く。")).toEqual(["ja-JP", []]);
    expect(await inLanguage("潮が引くと石が現れる。潮が引くと石が現れる。", "Low water")).toEqual([
      "ja-JP",
      ["en-US"],
    ]);
    expect(await inLanguage("آب که پایین می‌رود سنگ پیدا می‌شود. ", "برو")).toEqual(["fa-IR", []]);
    // Nothing is said of these letters.
    expect(await inLanguage("Вода уходит, и камень виден. ", "Иди")).toEqual(["ru", []]);
  });
});

test("what a document says for coming back is believed as far as exports say such things", async () => {
  const control = (tag: string, inside: string): string =>
    `<w:sdt><w:sdtPr><w:tag w:val="${tag}"/></w:sdtPr><w:sdtContent>${inside}</w:sdtContent></w:sdt>`;
  const said = [
    { areas: "{", link: "a" },
    { signposts: "nothing", depth: "x" },
    { area: "polygon", frame: "{" },
  ];
  const files = unzipSync(
    document(said.map((_, i) => p(t(`${i} `), control(`vennet-${i}`, t("words")))).join("")),
  );
  const properties = said
    .map(
      (one, i) =>
        `<property name="vennet-${i}"><vt:lpwstr>${JSON.stringify(one).replace(/"/g, "&quot;")}</vt:lpwstr></property>`,
    )
    .join("");
  files["docProps/custom.xml"] = strToU8(`<Properties xmlns:vt="vt">${properties}</Properties>`);
  files["_rels/.rels"] = strToU8(
    `<Relationships><Relationship Id="d" Type="${type("officeDocument")}" Target="word/document.xml"/><Relationship Id="c" Type="${type("custom-properties")}" Target="docProps/custom.xml"/></Relationships>`,
  );
  const { chapters } = await bring(zipSync(files));
  expect(chapters[0]!.textContent).toBe("Walks0 words1 words2 words");
});
