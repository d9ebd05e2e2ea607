import { expect, test } from "@jest/globals";
import { VisitCookies } from "./visit-cookies.ts";

const page = "https://tides.hesterley.example/tables/today";

// RFC 6265, 5.3 and 5.4 (from memory).
test("cookies go where they may: by host, path, https and age", () => {
  const cookies = new VisitCookies();
  cookies.keep(page, [
    "seen=1; Path=/; HttpOnly",
    "low=2; Path=/tables; Secure",
    "all=3; Domain=hesterley.example; Path=/",
    "gone=4; Path=/; Max-Age=0",
    "other=5; Domain=ferry.example; Path=/",
    "each=6; Domain=example; Path=/",
  ]);
  expect(cookies.for(page)).toBe("low=2; seen=1; all=3");
  expect(cookies.for("https://tides.hesterley.example/tables")).toBe("low=2; seen=1; all=3");
  expect(cookies.for("http://tides.hesterley.example/")).toBe("seen=1; all=3");
  expect(cookies.for("https://ferry.hesterley.example/")).toBe("all=3");
  expect(cookies.for("https://ferry.example/")).toBeUndefined();
});

test("the next question is another one when a cookie was set, or has another value", () => {
  const cookies = new VisitCookies();
  expect(cookies.keep(page, [])).toBe(false);
  expect(cookies.keep(page, ["seen=1"])).toBe(true);
  expect(cookies.keep(page, ["seen=1"])).toBe(false);
  expect(cookies.keep(page, ["seen=2"])).toBe(true);
  expect(cookies.keep(page, ["", "\u0001", "x=1; Domain=ferry.example"])).toBe(false);
});
