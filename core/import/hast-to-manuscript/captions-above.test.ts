import { expect, test } from "@jest/globals";
import { strToU8 } from "fflate";
import { captionedBlocks } from "../../manuscript/captions.ts";
import { bring } from "../../test/brought.ts";

const row = (words: string): string => `<tr><td>${words}</td></tr>`;

test.each([
  ["above its table", `<table><caption>Tides</caption>${row("9")}</table>`, ["Tides > 9"]],
  [
    "below where it says so",
    `<table><caption align="bottom">Tides</caption>${row("9")}</table><table><caption style="caption-side: bottom">Huts</caption>${row("2")}</table>`,
    ["9 < Tides", "2 < Huts"],
  ],
  [
    "below where a table comes right before",
    `<table>${row("9")}</table><a id="huts"></a><table><caption>Huts</caption>${row("2")}</table><table><caption>Posts</caption>${row("4")}</table>`,
    ["9", "2 < Huts", "Posts > 4"],
  ],
])("a caption stands %s", async (_, html, expected) => {
  const { chapters } = await bring(strToU8(`<!doctype html><h1>T</h1><blockquote>${html}</blockquote>`));
  const shown = captionedBlocks(chapters[0]!.child(1)).map(({ node, caption, captionFirst }) => {
    const words = caption?.textContent ?? "";
    if (!caption) return node.textContent;
    return captionFirst ? `${words} > ${node.textContent}` : `${node.textContent} < ${words}`;
  });
  expect(shown).toEqual(expected);
});
