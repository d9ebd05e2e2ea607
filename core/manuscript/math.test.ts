import { describe, expect, test } from "@jest/globals";
import { formulaFromDom } from "./from-dom.ts";
import { assertMath, lettersOfMath, wordsOfMath, type MathElement } from "./math.ts";
import { schema } from "./schema.ts";

const mi = (words: string): MathElement => ({ name: "mi", children: [words] });
const math = (...children: MathElement[]): MathElement => ({ name: "math", children });

test("a formula is told in a row, and its letters as they stand", () => {
  const formula = math(
    { name: "mfrac", children: [{ name: "mrow", children: [mi("a"), mi("b")] }, mi("c")] },
    { name: "mroot", children: [mi("x"), { name: "mn", children: ["3"] }] },
  );
  expect([wordsOfMath(formula), lettersOfMath(formula)]).toEqual(["ab/c3√x", "abcx3"]);
  const node = schema.node("formula", { math: formula });
  expect(schema.node("paragraph", null, [schema.text("at "), node]).textContent).toBe("at abcx3");
});

describe("what is no formula is refused", () => {
  const deep = (depth: number): MathElement =>
    depth === 0 ? mi("x") : { name: "msqrt", children: [deep(depth - 1)] };
  test.each<[string, unknown]>([
    ["nothing", null],
    ["another element", { name: "script", children: ["x"] }],
    ["one that is not the whole", mi("x")],
    ["an attribute that does something", math({ ...mi("x"), attributes: { onclick: "x()" } } as never)],
    ["attributes that are none", math({ ...mi("x"), attributes: null } as never)],
    ["too few parts", math({ name: "mfrac", children: [mi("x")] })],
    ["words outside of letters", math("x" as never)],
    ["elements in letters", math({ name: "mi", children: [mi("x")] })],
    ["what is too deep", math(deep(70))],
    ["what is too large", math(...Array.from({ length: 6_000 }, () => mi("x")))],
  ])("%s", (_, value) => {
    expect(() => assertMath(value)).toThrow(RangeError);
    // From a clipboard that a stranger's page has filled.
    const dom = { dataset: { attrs: JSON.stringify({ math: value, display: true }) } };
    expect(formulaFromDom(dom as never)).toBe(false);
    expect(() => schema.node("formula", { math: value }).check()).toThrow(RangeError);
  });
});
