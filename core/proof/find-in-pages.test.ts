import { describe, expect, it } from "@jest/globals";
import { SearchedPages } from "./find-in-pages.ts";

const pages = new SearchedPages([
  [
    "1 The Monk’s Path",
    "The oldest of the causeways, and the kind-",
    "est. It leaves the mainland below Tern Head.",
  ],
  ["Read the tables.", "At the fifth post the stone begins.", "Read the tables.", "The ﬁrst box is full."],
]);

describe("where a place of the text stands in set pages", () => {
  it("is found by the letters around it, over a hyphen at a line's end", () => {
    const at = pages.find("The oldest of the causeways, and the kinde", "st. It leaves", 0.2);
    expect(at).toEqual({ page: 0, piece: 2 });
  });

  it("is found through ligatures, and with nothing after it", () => {
    expect(pages.find("The first box", " is full.", 0.9)).toEqual({ page: 1, piece: 3 });
    expect(pages.find("At the fifth post the stone begins.", "", 0.6)).toEqual({ page: 1, piece: 1 });
  });

  it("is the nearer of two equal passages", () => {
    expect(pages.find("Read the", " tables.", 0.55)).toEqual({ page: 1, piece: 0 });
    expect(pages.find("Read the", " tables.", 0.95)).toEqual({ page: 1, piece: 2 });
  });

  it("is found by fewer letters where the rest has changed, and not at all where all has", () => {
    const at = pages.find("Some new words, and at the fifth post", " the stone begins.", 0.6);
    expect(at).toEqual({ page: 1, piece: 1 });
    expect(pages.find("Nobody wrote this", " anywhere", 0.5)).toBeNull();
    expect(pages.find("", "", 0.5)).toBeNull();
  });
});
