import { expect, test } from "@jest/globals";
import type { SetInline } from "./set-data.ts";
import { withWideWordsParted } from "./wide-words.ts";

const text = (words: string): SetInline => ({ kind: "text", words });
const link = (...content: SetInline[]): SetInline => ({ kind: "link", look: "web", url: "u", content });

/** What is set, a line's possible ends as “|”, what may be parted by syllables in braces, links in brackets. */
function shown(words: readonly SetInline[]): string {
  return words
    .map((one) => {
      if (one.kind === "link") return `[${shown(one.content)}]`;
      if (one.kind === "text") return one.parted ? `{${one.words}}` : one.words;
      return one.kind === "may-break" ? "|" : one.kind === "anchor" ? "" : "•";
    })
    .join("");
}
const parted = (line: number, ...words: SetInline[]): string => shown(withWideWordsParted(words, line));

test("a heading whose words fit into a line stays as it is", () => {
  const words = [text("The causeway of "), link(text("HesterleySound::Refuges"))];
  expect(withWideWordsParted(words, 20)).toEqual(words);
});

test("a name that is wider than a line may be parted between the names that it is made of", () => {
  expect(parted(12, text("Struct AngleBracketedGenericArguments of it"))).toBe(
    "Struct Angle|Bracketed|Generic|Arguments of it",
  );
  expect(parted(8, text("See tides.hesterley/low_water42"))).toBe("See tides.|hesterley/|low_|water|42");
});

test("a word goes on through links, and a line ends behind a link, not within its end", () => {
  const anchor: SetInline = { kind: "anchor", label: "a" };
  expect(
    parted(
      12,
      link(text("tides")),
      text("::"),
      anchor,
      link(text("Hesterley"), text("Sound")),
      text("Walks"),
    ),
  ).toBe("[tides]::|[Hesterley|Sound]|Walks");
  // A picture ends a word.
  const picture = { kind: "page", place: "p" } as const;
  expect(parted(9, text("tidesTables"), picture, text("WaysPosts"))).toBe("tidesTables•WaysPosts");
});

test("what is too wide and made of no others may be parted by its syllables", () => {
  expect(parted(12, text("Die Wattwanderwegsicherungsgesellschaft am Meer"))).toBe(
    "Die {Wattwanderwegsicherungsgesellschaft} am Meer",
  );
  expect(parted(12, text("ebbFlutwasserstandsvorhersagedienste"))).toBe(
    "ebb|{Flutwasserstandsvorhersagedienste}",
  );
  // Capitals are wider than most letters.
  expect(parted(12, text("WATTWANDERWEGSCHILD"))).toBe("{WATTWANDERWEGSCHILD}");
  // Scripts without blanks have a line's end after any letter.
  expect(parted(5, text("潮".repeat(40)))).toBe("潮".repeat(40));
});

test("code, which no language parts, is parted anywhere where it has no seams, also in a listing", () => {
  const code: SetInline = { kind: "text", words: "hesterleysoundwalks", marks: ["code"] };
  expect(parted(5, text("in "), code)).toBe("in hesterley|soundwalk|s");
  expect(shown(withWideWordsParted([text("low_hesterleysoundwalks\n  ebb")], 5, true))).toBe(
    "low_|hesterley|soundwalk|s\n  ebb",
  );
  // Its letters are narrower than those of text.
  expect(parted(5, { kind: "text", words: "LOW_WATER", marks: ["code"] })).toBe("LOW_WATER");
});
