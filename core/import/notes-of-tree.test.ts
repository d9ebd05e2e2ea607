import { describe, expect, test } from "@jest/globals";
import { bring } from "../test/brought.ts";

const page = (body: string): Uint8Array => new TextEncoder().encode(`<!doctype html><h1>Sands</h1>${body}`);

/** What notes a page brings, how often each is called, and what is left of the text. */
async function notesOf(
  body: string,
): Promise<{ notes: string[]; signs: number; text: string; counts: object }> {
  const { chapters, arrival } = await bring(page(body));
  const [doc] = chapters;
  let signs = 0;
  doc!.descendants((node) => {
    if (node.type.name === "note_reference") signs += 1;
  });
  const children = [...doc!.children];
  const isNote = (name: string): boolean => name === "note";
  return {
    notes: children.filter(({ type }) => isNote(type.name)).map((note) => note.textContent.trim()),
    signs,
    text: children
      .filter(({ type }) => !isNote(type.name))
      .map(({ textContent }) => textContent)
      .join("|"),
    counts: arrival!.counts,
  };
}

describe("notes of a page", () => {
  test.each<[string, string]>([
    [
      "by their roles (DPUB-ARIA 1.1)",
      '<p>It is bare<a role="doc-noteref" href="#n" id="r">1</a>.</p><aside role="doc-footnote" id="n"><p>By day. <a role="doc-backlink" href="#r">back</a></p></aside>',
    ],
    [
      "by their shape: a paragraph with its number before it, and a way back in words",
      '<p>It is bare<sup><a id="r" href="#n">1</a></sup>.</p><p id="n">1. By day. <a href="#r">Back to the text</a></p>',
    ],
    [
      "by their shape: an item of a list that leads back",
      '<p>It is bare<sup id="r"><a href="#n">1</a></sup>.</p><ol><li id="n"><p>By day. <a href="#r">↩</a></p></li></ol>',
    ],
    [
      "by their shape: a paragraph whose number leads back",
      '<p>It is bare<a id="r" href="#n">[1]</a>.</p><hr><p><a id="n" href="#r">[1]</a> By day.</p>',
    ],
    [
      "by their shape: a term that leads back, with its definition",
      '<p>It is bare<a id="r" href="#n">[1]</a>.</p><dl><dt id="n"><a href="#r">[1]</a></dt><dd>By day.</dd></dl>',
    ],
    [
      "by their shape: a row of a table whose first cell leads back",
      '<p>It is bare<a id="r" href="#n">[1]</a>.</p><table><tr><td><a id="n" href="#r"><span>[1]</span></a></td><td><p>By day.</p></td></tr></table>',
    ],
    [
      "with brackets around the way back",
      '<p>It is bare<a role="doc-noteref" href="#n" id="r"><span>[</span>1<span>]</span></a>.</p><aside role="doc-footnote" id="n"><span class="label"><span>[</span><a role="doc-backlink" href="#r">1</a><span>]</span></span><p>By day.</p></aside>',
    ],
    [
      "with their number before several ways back",
      '<p>It is bare<a role="doc-noteref" href="#n" id="r">[4]</a>.</p><aside role="doc-footnote" id="n"><span class="label"><span>[</span>4<span>]</span></span><span>(<a role="doc-backlink" href="#r">1</a>,<a role="doc-backlink" href="#r">2</a>)</span><p>By day.</p></aside>',
    ],
    [
      "with a raised number before their words",
      '<p>It is bare<a id="r" href="#n"><sup>1</sup></a>.</p><p id="n"><sup>1</sup> By day. <a href="#r">↩</a></p>',
    ],
  ])("are found %s", async (_, body) => {
    const { notes, signs, text, counts } = await notesOf(body);
    expect(notes).toEqual(["By day."]);
    expect(signs).toBe(1);
    expect(text).toMatch(/^Sands\|It is bare\.\|?$/);
    expect(counts).toMatchObject({ lost: 0, extra: 0, changed: 0 });
  });

  test("are not made of a number alone, nor is what stands after it lost", async () => {
    const { notes, text, counts } = await notesOf(
      '<p>It is bare<a id="r" href="#n">[1]</a>.</p><p><a id="n" href="#r">[1]</a></p><p>By day.</p>',
    );
    expect([notes, text]).toEqual([[], "Sands|It is bare[1].|[1]|By day."]);
    expect(counts).toMatchObject({ intact: 2, lost: 0, extra: 0, changed: 0 });
  });

  test("keep a number that is a word of theirs, and signs that stand around none of their ways back", async () => {
    const { notes } = await notesOf(
      '<p>Bare<a id="r" href="#n">3</a>.</p><p id="n"><em>3</em> huts (<b>!</b>) of <sup>3</sup>. <a href="#r">↩</a></p>',
    );
    expect(notes).toEqual(["3 huts (!) of 3."]);
  });

  test("are called again, and linked to by words", async () => {
    const { notes, signs, counts } = await notesOf(
      '<p>One<a id="r" href="#n">1</a>, two<a href="#n">1</a>, see <a href="#n">the note</a>.</p><p id="n">By day. <a href="#r">↩</a></p>',
    );
    expect([notes, signs]).toEqual([["By day."], 2]);
    expect(counts).toMatchObject({ lost: 0, extra: 0, changed: 0 });
  });

  test("are no pages, no sections, and nothing that leads nowhere back", async () => {
    for (const body of [
      '<p>See <a id="r" href="#s">2</a>.</p><section id="s"><h2>Low water</h2><p>At nine, see <a href="#r">1</a>.</p></section>',
      '<p>See <a id="r" href="#s">2</a>.</p><p id="s">At nine.</p>',
      '<p>See <a id="r" href="#s">low water</a>.</p><p id="s">At nine, <a href="#r">back</a>.</p>',
    ]) {
      const { notes, signs, text } = await notesOf(body);
      expect([notes, signs]).toEqual([[], 0]);
      expect(text).toContain("At nine");
    }
  });
});

describe("lists of contents of a page", () => {
  const listsOf = async (body: string): Promise<string[]> => {
    const { chapters } = await bring(page(body));
    const found: string[] = [];
    for (const doc of chapters)
      doc.descendants(({ type, attrs }) => {
        const { of, scope, depth, heading } = attrs as Record<string, unknown>;
        if (type.name === "signposts") found.push([of, scope, depth, heading].join(" "));
      });
    return found;
  };
  const low = '<h2 id="a">Low water</h2><p>x</p><h2 id="b">High water</h2><p>y</p>';
  const links = '<ul><li><a href="#a">Low water</a></li><li><a href="#b">High water</a></li></ul>';

  test("are those of its chapter, or of all, with their headings", async () => {
    expect(await listsOf(`<nav><h3>Here</h3>${links}</nav>${low}<h1>Boats</h1><h2>Oars</h2>`)).toEqual([
      "contents chapter 1 Here",
    ]);
    const whole = await bring(
      new TextEncoder().encode(
        '<!doctype html><nav><a href="#s">Sands</a> <a href="#t">Boats</a></nav><h1 id="s">Sands</h1><h1 id="t">Boats</h1>',
      ),
    );
    expect(whole.chapters[0]!.lastChild!.attrs).toMatchObject({ of: "contents", scope: "book", depth: 1 });
  });

  test("and stay lists where they say or lead to something else", async () => {
    for (const nav of [
      `<nav>${links.replace("</ul>", '<li><a href="https://a.example/">Out</a></li></ul>')}</nav>`,
      `<nav>${links}<p>Not all of them.</p></nav>`,
      '<nav><a href="#a">Low water</a></nav>',
    ])
      expect(await listsOf(nav + low)).toEqual([]);
  });
});

test("a way back is no mark, though its page gives the name to which it leads to a note before", async () => {
  const noteRef = (href: string, id: string, number: number): string =>
    `<p>It is bare<a role="doc-noteref" href="#${href}" id="${id}">[${number}]</a>.</p>`;
  const note = (id: string, back: string, number: number, words: string): string =>
    `<aside role="note" id="${id}"><span>[<a role="doc-backlink" href="#${back}">${number}</a>]</span><p>${words}</p></aside>`;
  const first = noteRef("two", "one", 1) + note("two", "one", 1, "By day.");
  const { notes, signs } = await notesOf(
    first + noteRef("three", "two", 2) + note("three", "two", 2, "By night."),
  );
  expect(notes).toEqual(["By day.", "By night."]);
  expect(signs).toBe(2);
});

test("the line above notes at the end of a page goes with the last of them", async () => {
  const { notes, text } = await notesOf(
    '<p>It is bare<a name="r" href="#n">[1]</a>.</p><div><br clear="all"><hr width="33%"><div><p><a name="n" href="#r">[1]</a> By day.</p></div></div>',
  );
  expect([notes, text]).toEqual([["By day."], "Sands|It is bare."]);
});
