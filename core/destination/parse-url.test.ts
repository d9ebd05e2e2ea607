import { expect, test } from "@jest/globals";
import { parseUrl } from "./parse-url.ts";

test("letters of every script are read in a host, however often addresses were read before", () => {
  for (let i = 0; i < 50_000; i++) parseUrl(`https://tides.example/${i}`);
  expect(parseUrl("https://tide-büro.de/")?.hostname).toBe("xn--tide-bro-c6a.de");
  expect(parseUrl("https://приливы.рф/")?.hostname).toBe("xn--b1alalsg5f.xn--p1ai");
  expect(parseUrl("../b", "https://tides.example/a/c")?.href).toBe("https://tides.example/b");
  expect(parseUrl("not an address")).toBeNull();
});

// WHATWG URL, "forbidden domain code point": a blank and % are among them.
test("a blank in a host makes it none, whatever a browser makes of it", () => {
  const wrong = ["a b", "a%20b", "a\u00a0b"];
  expect(wrong.map((host) => parseUrl(`https://${host}.example/`))).toEqual(wrong.map(() => null));
  const right = ["tides.example", "a_b-c.example", "bücher.example", "127.0.0.1", "[::1]", "例え.test"];
  expect(right.map((host) => parseUrl(`https://${host}/`)?.hostname)).toEqual([
    "tides.example",
    "a_b-c.example",
    "xn--bcher-kva.example",
    "127.0.0.1",
    "[::1]",
    "xn--r8jz45g.test",
  ]);
  expect(parseUrl("mailto:a%20b@tides.example")?.protocol).toBe("mailto:");
});
