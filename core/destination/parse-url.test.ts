import { expect, test } from "@jest/globals";
import { parseUrl } from "./parse-url.ts";

test("letters of every script are read in a host, however often addresses were read before", () => {
  for (let i = 0; i < 50_000; i++) parseUrl(`https://tides.example/${i}`);
  expect(parseUrl("https://tide-büro.de/")?.hostname).toBe("xn--tide-bro-c6a.de");
  expect(parseUrl("https://приливы.рф/")?.hostname).toBe("xn--b1alalsg5f.xn--p1ai");
  expect(parseUrl("../b", "https://tides.example/a/c")?.href).toBe("https://tides.example/b");
  expect(parseUrl("not an address")).toBeNull();
});
