import { expect, test } from "@jest/globals";
import { linkUses } from "../manuscript/links.ts";
import { bring } from "../test/brought.ts";

const page =
  "<!doctype html><title>Ti\ufffcdes</title><h1>Low\x01 water</h1><p>See \x93<a href='https://tides.hesterley.example/' title='Ta\ufffcbles'>the\ufeff tables</a>\x94.</p>";

test.each([
  ["a page", page.replace("\x01", "")],
  [
    "a text",
    '\ufeff\ufeff# Low water\f\n\nSee \x93[the\ufeff tables](https://tides.hesterley.example/ "Ta\ufffcbles")\x94.',
  ],
])("%s comes without signs that no file can hold, and all links arrive", async (_, text) => {
  const { chapters, arrival } = await bring(Buffer.from(text));
  expect(chapters[0]!.textContent).toBe("Low waterSee “the tables”.");
  expect(linkUses(chapters[0]!)).toMatchObject([{ text: "the tables", description: "Tables" }]);
  expect(arrival).toMatchObject({ counts: { intact: 1, changed: 0, lost: 0, extra: 0 } });
});

test("so does what a file says of itself", async () => {
  expect((await bring(Buffer.from(page))).title).toBe("Tides");
});
