import { expect, test } from "@jest/globals";
import { withAnchorsHeld } from "./held-anchors.ts";
import { inParagraphs, withPicturesInLines } from "./pictures-in-lines.ts";
import type { SetInline, SetPicture } from "./set-data.ts";

const room = 30;
const signs: Record<string, SetInline> = {
  "\n": { kind: "break" },
  "|": { kind: "anchor", label: "here" },
  "¹": { kind: "raised-link", words: "1", url: "" },
};

/** Words in which `#` is a picture, `[` to `]` a link, `\n` the end of a line, `|` an anchor and `¹` the mark of a note. */
function items(written: string): SetInline[] {
  return (written.match(/\[[^\]]*\]|[#\n|¹]|[^[\]#\n|¹]+/g) ?? []).map((part): SetInline => {
    if (part.startsWith("["))
      return { kind: "link", look: "web", url: "", content: items(part.slice(1, -1)) };
    if (part === "#")
      return {
        kind: "picture",
        file: "dot.png",
        alt: "a dot",
        decorative: false,
        alone: false,
        room: null,
        places: [],
        percent: 40,
        hotspots: [],
      };
    return signs[part] ?? { kind: "text", words: part };
  });
}

const picturesIn = (words: SetInline[]): SetPicture[] =>
  words.flatMap((item) => {
    if (item.kind === "link") return picturesIn(item.content);
    return item.kind === "picture" ? [item] : [];
  });

test.each<[written: string, alone: boolean[]]>([
  ["#", [true]],
  [" # ", [true]],
  ["##", [true, true]],
  ["sands\n#\nsands", [true]],
  ["#\nsands # bare\n#", [true, false, true]],
  ["#¹", [true]],
  ["|#|", [true]],
  ["sands #", [false]],
  ["[#]", [true]],
  ["[#\nthe huts]", [false]],
  ["see\n[the huts]\n#", [true]],
  ["[the huts\n]#", [true]],
])("of %j, those pictures are alone on their lines", (written, alone) => {
  const pictures = picturesIn(withPicturesInLines(items(written), room));
  expect(pictures.map((picture) => picture.alone)).toEqual(alone);
  expect(pictures.map((picture) => [picture.room, picture.percent])).toEqual(alone.map(() => [room, 40]));
});

test("in a cell, a picture among words has no room of its own", () => {
  const [among, alone] = picturesIn(withPicturesInLines(items("bare #\n#"), null));
  expect([among!.room, among!.percent]).toEqual([null, null]);
  expect([alone!.room, alone!.percent]).toEqual([null, 40]);
});

test.each<[written: string, paragraphs: number]>([
  ["# #", 2],
  ["#\n[#]\n\n#", 3],
  ["#", 1],
  ["#\nsands\n#", 1],
  ["##¹", 1],
  ["[#\n#]", 1],
])("the pictures of %j are in %i paragraphs", (written, paragraphs) => {
  const parted = inParagraphs(withPicturesInLines(items(written), room));
  expect(parted).toHaveLength(paragraphs);
  expect(parted.flatMap(picturesIn)).toHaveLength(picturesIn(items(written)).length);
});

test.each<[written: string, places: string[][]]>([
  ["|#", [["here"]]],
  ["sands |\n#", [["here"]]],
  ["sands | #", [["here"]]],
  ["sands |bare #", [[]]],
  ["||[#]", [["here", "here"]]],
  ["#|", [[]]],
])("of %j, those places are at the edge of the picture", (written, places) => {
  const held = withAnchorsHeld(withPicturesInLines(items(written), room));
  expect(picturesIn(held).map((picture) => picture.places)).toEqual(places);
});
