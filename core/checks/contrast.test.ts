import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import wcag from "wcag-contrast";
import { assertLooks, defaultLooks } from "../manuscript/looks.ts";
import { contrastRatio, judgeLook } from "./contrast.ts";

const { hex } = wcag as { hex: (a: string, b: string) => number };

// WCAG 2.2, "contrast ratio".
test.each([
  ["#000000", "#ffffff", 21],
  ["#767676", "#ffffff", 4.542],
  ["#777777", "#ffffff", 4.478],
  ["#0000ee", "#ffffff", 9.398],
  ["#0000ee", "#000000", 2.235],
])("%s beside %s has %d", (a, b, ratio) => {
  expect(contrastRatio(a, b)).toBeCloseTo(ratio, 3);
  expect(contrastRatio(b, a)).toBeCloseTo(ratio, 3);
});

test("agrees with wcag-contrast over 10,000 random pairs", () => {
  const colour = fc.stringMatching(/^#[0-9a-f]{6}$/);
  fc.assert(
    fc.property(colour, colour, (a, b) => {
      // Its table rounds to a smaller threshold (0.03928), which differs for no eight-bit colour.
      expect(contrastRatio(a, b)).toBeCloseTo(hex(a, b), 6);
    }),
    { numRuns: 10_000 },
  );
});

describe("a look", () => {
  const look = (colour: string, underline: "none" | "solid") =>
    judgeLook({ ...defaultLooks.web, colour, underline });

  test("is readable from a contrast of 4.5 with the paper (SC 1.4.3)", () => {
    expect(look("#767676", "solid").isReadable).toBe(true);
    expect(look("#777777", "solid").isReadable).toBe(false);
  });

  // SC 1.4.1, techniques G182 and G183, failure F73.
  test("is told from the text by an underline, or by a contrast of 3 with it", () => {
    expect(look("#1d4f8f", "solid").isTold).toBe(true);
    expect(look("#1d4f8f", "none").isTold).toBe(false);
    expect(look("#0b6bcb", "none").isTold).toBe(look("#0b6bcb", "none").besideText >= 3);
    expect(judgeLook({ ...defaultLooks.web, colour: "#1c1a17", underline: "none", bold: true }).isTold).toBe(
      false,
    );
  });

  test("is refused where it is none", () => {
    expect(() => assertLooks(defaultLooks)).not.toThrow();
    for (const wrong of [
      null,
      {},
      { lantern: defaultLooks.web },
      { ...defaultLooks, web: { ...defaultLooks.web, colour: "red;}" } },
      { ...defaultLooks, email: { ...defaultLooks.email, underline: "wavy" } },
      { ...defaultLooks, place: { ...defaultLooks.place, bold: 1 } },
      { ...defaultLooks, web: { ...defaultLooks.web, hover: "url(x)" } },
    ])
      expect(() => assertLooks(wrong)).toThrow(RangeError);
  });
});
