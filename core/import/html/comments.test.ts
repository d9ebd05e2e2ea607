import { expect, test } from "@jest/globals";
import { bring } from "../../test/brought.ts";

const brought = (body: string) =>
  bring(new TextEncoder().encode(`<!doctype html><html lang="en"><body><h1>Tides</h1>${body}</body></html>`));

// The shapes of such pages are common practice of programs that save a text with what editors say of it.
test.each<[string, string, string]>([
  [
    "of a shared document",
    `<p>Low<sup><a href="#ftnt1" id="ftnt_ref1">[1]</a></sup> water<sup><a href="#cmnt1" id="cmnt_ref1">[a]</a></sup>, <a href="https://tides.example/">hours</a>.</p><hr><div><p><a href="#ftnt_ref1" id="ftnt1">[1]</a> Twice a day.</p></div>`,
    `<div class="c1"><p><a href="#cmnt_ref1" id="cmnt1">[a]</a><span>Really? See <a href="https://else.example/">here</a>.</span></p><p>I think so.</p></div>`,
  ],
  [
    "of a text document",
    `<div><p>Low<a href="#n1" name="r1"><sup>1</sup></a> water<span><a href="#_msocom_1" name="_msoanchor_1">[OT1]</a></span>, <a href="https://tides.example/">hours</a>.</p></div><div id="n1"><p><a href="#r1">1</a> Twice a day.</p></div>`,
    `<div><hr><div><div id="_com_1"><span><a name="_msocom_1"></a></span><p><a href="#_msoanchor_1">[OT1]</a>Really? See <a href="https://else.example/">here</a>.</p><p>I think so.</p></div></div></div>`,
  ],
])("comments %s are no notes: they stay behind, and are told", async (_what, text, comments) => {
  const { chapters, leftOut, arrival } = await brought(text + comments);
  expect(chapters[0]!.textContent).not.toMatch(/Really|think|OT1|\[a\]/);
  expect(chapters[0]!.textContent).toContain("Twice a day");
  expect(leftOut.filter(({ sort }) => sort === "Comments").map(({ what }) => what)).toEqual([
    expect.stringMatching(/“\[(a|OT1)\]Really\? See here\.I think so\.”$/),
  ]);
  expect(arrival!.counts).toMatchObject({ intact: 2, lost: 0, extra: 0, changed: 0 });
  expect(arrival!.links.find(({ words }) => words === "here")).toMatchObject({
    verdict: "left-out",
    reason: "It stands in a comment, which has no place in a book.",
  });
});

test("a name like a comment’s amid the text takes nothing of it, and links lead there", async () => {
  const { chapters, leftOut, arrival } = await brought(
    `<div><p>Low</p><p>The <a id="cmnt1"></a>sands, see <a href="#cmnt1">above</a> and <a href="#cmnt2">nowhere</a>.</p></div>`,
  );
  expect(chapters[0]!.textContent).toBe("TidesLowThe sands, see above and nowhere.");
  expect(leftOut.filter(({ sort }) => sort === "Comments")).toEqual([]);
  expect(arrival!.links.map(({ words, verdict }) => [words, verdict])).toContainEqual(["above", "intact"]);
  expect(arrival!.counts).toMatchObject({ lost: 0, extra: 0 });
});
