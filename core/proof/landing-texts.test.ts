import { expect, test } from "@jest/globals";
import { LandingTexts } from "./landing-texts.ts";

/** What stands at a place in a paragraph between some words and others. */
function landingBetween(before: string, after: string): string | undefined {
  const landings = new LandingTexts();
  landings.open("p", null);
  landings.text(before);
  landings.open("a", "here");
  landings.close();
  landings.text(after);
  landings.close();
  return landings.found.get("here");
}

test("a place is told by what comes after it, and by its whole block where nothing does that can be read", () => {
  expect(landingBetween("The huts ", "stand on stilts.")).toBe("stand on stilts.");
  expect(landingBetween("The huts stand on stilts.", "12")).toBe("12");
  expect(landingBetween("The huts stand on stilts", ".")).toBe("The huts stand on stilts.");
  expect(landingBetween("The huts stand on stilts.", " ")).toBe("The huts stand on stilts.");
});
