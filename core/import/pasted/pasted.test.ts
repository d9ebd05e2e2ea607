import { expect, test } from "@jest/globals";
import type { Root } from "hast";
import { raw } from "hast-util-raw";
import { linkUses } from "../../manuscript/links.ts";
import { schema } from "../../manuscript/schema.ts";
import { readHtml } from "../html/html.ts";
import { pasted } from "./pasted.ts";

const docOf = (html: string) => {
  const made = pasted(readHtml(html, false));
  const title = schema.node("title", { id: "title" });
  return { ...made, doc: schema.node("doc", null, [title, ...made.content.content]) };
};

test("what is pasted brings its links of every kind, with their descriptions", () => {
  const { doc, leftOut } = docOf(
    '<p>See <a href="https://tides.hesterley.example/" title="Hours">tides</a>, <a href="tel:+44-20-7946-0000">call</a>, <a href="mailto:w@causeways.example">write</a>, <a href="#boats">boats</a>, <a href="plan.pdf">plan</a>.<h3 id="boats">Boats</h3>',
  );
  const [heading] = doc.children.filter(({ type }) => type.name === "heading");
  expect(linkUses(doc).map(({ text, destination, description }) => [text, destination, description])).toEqual(
    [
      ["tides", { kind: "web", address: "https://tides.hesterley.example/" }, "Hours"],
      ["call", { kind: "telephone", address: "tel:+44-20-7946-0000" }, null],
      ["write", { kind: "email", address: "mailto:w@causeways.example" }, null],
      ["boats", { kind: "place", target: heading!.attrs["id"] }, null],
      ["plan", { kind: "file", path: "plan.pdf" }, null],
    ],
  );
  expect(leftOut.map(({ sort }) => sort)).toEqual(["Links to files that were not brought along"]);
  doc.check();
});

test("relative links start where the page says that it is", () => {
  const { doc } = docOf('<base href="https://maps.hesterley.example/sound/"><p><a href="low.html">low</a>');
  expect(linkUses(doc)[0]!.destination).toEqual({
    kind: "web",
    address: "https://maps.hesterley.example/sound/low.html",
  });
});

test("emphasis comes as elements and as styles, headings below the title of the chapter", () => {
  const { doc } = docOf(
    '<h1>Sands</h1><p><span style="font-weight:700">bold</span> <span style="font-style:italic">slanted</span> x<sup>2</sup> <span style="text-decoration:line-through">gone</span>',
  );
  const marks: string[] = [];
  doc.descendants(({ text, marks: own }) => {
    if (text && own.length > 0) marks.push(`${text}: ${own.map(({ type }) => type.name).join(" ")}`);
  });
  expect(marks).toEqual(["bold: strong", "slanted: emphasis", "2: superscript", "gone: strike"]);
  expect(doc.child(1).type.name + String(doc.child(1).attrs["level"])).toBe("heading1");
});

test("pictures inside it come in their places, and others are told; what does something is left out", () => {
  const { doc, pictures, leftOut } = docOf(
    '<style>p{}</style><p>a<img src="data:image/png;base64,iVBO"> b <img src="https://maps.hesterley.example/m.png" alt="Map"><a href="javascript:x()">c</a></p><script>x()</script><iframe src="https://a.example/"></iframe>',
  );
  expect(doc.textContent.replace(/\s+/g, " ").trim()).toBe("a b c");
  const file = expect.any(String);
  expect(pictures).toEqual([{ file, mediaType: "image/png", bytes: new Uint8Array([0x89, 0x50, 0x4e]) }]);
  // They stand where they stood.
  expect(doc.child(1).child(1).attrs["file"]).toBe(pictures[0]!.file);
  expect(leftOut.map(({ sort }) => sort)).toEqual([
    "Pictures",
    "Links that a book cannot hold",
    "Elements that have no place in a book",
  ]);
});

test("items that text programs put on the clipboard as paragraphs are a list", () => {
  const html =
    "<p class=MsoListParagraph style='mso-list:l0 level1 lfo1'><![if !supportLists]><span style='font-family:Symbol'>·<span style='font:7.0pt \"Times New Roman\"'>&nbsp; </span></span><![endif]>Low water</p>";
  // As the browser’s own parser gives it, without anything done to it.
  const tree = raw({ type: "root", children: [{ type: "raw", value: html }] } as unknown as Root) as Root;
  const { content } = pasted(tree);
  expect(content.child(0).type.name).toBe("bullet_list");
  expect(content.child(0).textContent).toBe("Low water");
});

test("notes come as notes, with their signs in the text", () => {
  const made = pasted(
    readHtml(
      '<p>It turns<a href="#n" id="r">1</a>.</p><p id="n"><a href="#r">1</a> Twice a day, says <a href="https://tides.example/">it</a>.</p>',
      false,
    ),
  );
  expect(made.content.content.map(({ textContent }) => textContent)).toEqual(["It turns."]);
  expect(made.notes.map(({ textContent }) => textContent.trim())).toEqual(["Twice a day, says it."]);
  expect(made.content.child(0).child(1).attrs["note"]).toBe(made.notes[0]!.attrs["id"]);
});

test("what programs put on the clipboard beside their text says how it is shown", () => {
  const value =
    '<style>.s1{font-style:italic}.far{margin-left:1in}</style><p>It <span class="s1">ebbs</span>.</p><ul><li>Low</ul><ul><li class="far">Spring</ul>';
  const { content } = pasted(
    raw({ type: "root", children: [{ type: "raw", value }] } as unknown as Root) as Root,
  );
  const [paragraph, list, ...more] = content.content;
  expect(paragraph!.children.map(({ text, marks }) => [text, marks.map(({ type }) => type.name)])).toEqual([
    ["It ", []],
    ["ebbs", ["emphasis"]],
    [".", []],
  ]);
  expect(list!.firstChild!.children.map(({ type }) => type.name)).toEqual(["paragraph", "bullet_list"]);
  expect(more).toEqual([]);
});
