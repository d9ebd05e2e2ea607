import { expect, test } from "@jest/globals";
import { pagePair } from "../test/changing-page.ts";
import { changeOf, fingerprintOf, type Fingerprint } from "./fingerprint.ts";
import { PageReader } from "./page-reader.ts";

function printOf(html: string, part: string | null = null): Fingerprint {
  const reader = new PageReader({ parts: part === null ? [] : [[part]], isTextWanted: false });
  reader.push(html);
  reader.end();
  const { title, headings, language, content, parts } = reader.facts();
  return fingerprintOf({
    title,
    headings,
    language,
    words: content,
    part: part === null ? null : parts.get(part)!,
  });
}
const whatChanged = (then: string, now: string, part: string | null = null) =>
  changeOf(printOf(then, part), printOf(now, part))?.what ?? null;

test("of an invented web 0.95 of the pages that became others are told, and at most 0.02 of those that did not", () => {
  const told = { another: 0, same: 0 };
  const all = { another: 0, same: 0 };
  for (let seed = 1; seed <= 400; seed++) {
    const { then, now, isAnother } = pagePair(seed);
    const kind = isAnother ? "another" : "same";
    all[kind]++;
    if (whatChanged(then, now) !== null) told[kind]++;
  }
  expect(told.another / all.another).toBeGreaterThanOrEqual(0.95);
  expect(told.same / all.same).toBeLessThanOrEqual(0.02);
});

const words = (topic: string, count = 40) =>
  Array.from({ length: count }, (_, i) => `${topic} ${"abcdefghij"[i % 10]!.repeat(1 + (i % 7))}`).join(" ");
const html = (title: string, text: string, language = "en") =>
  `<html lang="${language}"><title>${title}</title><body><main><h1>${title}</h1><p>${text}</p></main>`;

test("a part that says something else is told where the page is what it was", () => {
  const page = (part: string) =>
    html(
      "Tides",
      `${words("sand")}</p><h2 id="low">Low water</h2><p>${part}</p><h2>High water</h2><p>${words("reed", 80)}`,
    );
  const then = page("The fifth post stands in a hand of water at noon.");
  expect(whatChanged(then, page("Nobody keeps account of that any more, sorry."), "low")).toBe("part");
  expect(whatChanged(then, page("The fifth post stands in two hands of water at noon."), "low")).toBeNull();
  expect(whatChanged(then, page("Nobody keeps account of that any more, sorry."))).toBeNull();
});

test("a page in another language, of other words and another name may have changed hands", () => {
  const then = html("Tides", words("sand"));
  expect(whatChanged(then, html("Kredite", words("geld"), "de"))).toBe("hands");
  expect(whatChanged(then, html("Gezeiten", words("geld")))).toBe("page");
  expect(whatChanged(then, html("Tides", words("sand"), "de"))).toBeNull();
});

test("scripts without blanks between words are compared sign by sign", () => {
  const tide = "干潮の時刻は毎日変わるので出かける前に必ず表を確かめてください";
  expect(whatChanged(html("干潮", tide), html("干潮", `${tide}。舟は出ません`))).toBeNull();
  expect(
    whatChanged(
      html("干潮", tide),
      html("広告", "新しい家を海のそばに建てませんか今なら安くできますお電話を"),
    ),
  ).toBe("page");
});

test("numbers, dates and lists of links are no words of a page", () => {
  const page = (day: string, news: string) =>
    html(
      "Tides",
      `${words("sand")} on ${day}</p><ul><li><a href="/n">${news}</a></li></ul><p>Seen ${day.length * 7} times.`,
    );
  expect(printOf(page("3 May 2024", "Ferry late")).sketch).toEqual(
    printOf(page("9 May 2025", "Seal found")).sketch,
  );
});
