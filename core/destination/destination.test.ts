import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  assertDestination,
  nameDestination,
  readHref,
  sameDestination,
  shortDestination,
  writeDestination,
} from "./destination.ts";
import { schemeOf } from "./scheme.ts";
import { webDestination } from "./kinds/web.ts";
import type { Destination } from "./kinds/kinds.ts";
import { emptyMessage, writeMailto } from "./mailto.ts";
import { recognise } from "./recognise.ts";

describe("web addresses", () => {
  // WHATWG URL, as Node's own URL has it.
  test("are written as the URL standard writes them", () => {
    expect(webDestination("http://EXAMPLE.com:80/%7Ea").address).toBe("http://example.com/%7Ea");
    expect(webDestination("https://tides.example").address).toBe("https://tides.example/");
  });

  test.each([
    "javascript:alert(1)",
    "JaVaScRiPt:alert(1)",
    " javascript:alert(1)",
    "java\nscript:alert(1)",
    "\u0001javascript:alert(1)",
    "data:text/html,<script>alert(1)</script>",
    "vbscript:msgbox",
    "file:///etc/passwd",
    "blob:https://tides.example/1",
  ])("%j can never become a link", (address) => {
    expect(() => readHref(address, null)).toThrow(expect.objectContaining({ code: "scheme" }));
    expect(() => webDestination(address)).toThrow(expect.objectContaining({ code: "scheme" }));
    expect(() => assertDestination({ kind: "web", address })).toThrow();
    expect(() => assertDestination({ kind: "email", address })).toThrow();
    expect(() => assertDestination({ kind: "file", path: address })).toThrow();
  });

  test("need a host", () => {
    expect(() => webDestination("https://")).toThrow(expect.objectContaining({ code: "address" }));
    expect(() => webDestination("tides")).toThrow(expect.objectContaining({ code: "address" }));
  });
});

describe("relative references", () => {
  // RFC 3986 section 5.4 (from memory; Node's URL confirms them). The URL parser adds the final "/" of //g.
  test.each([
    ["g", "http://a/b/c/g"],
    ["../../g", "http://a/g"],
    ["?y", "http://a/b/c/d;p?y"],
    ["../../../g", "http://a/g"],
    ["g;x=1/../y", "http://a/b/c/y"],
  ])("%s is resolved against the base", (reference, resolved) => {
    expect(readHref(reference, "http://a/b/c/d;p?q")).toEqual({ kind: "web", address: resolved });
  });

  test("a reference without scheme but with host is https", () => {
    expect(readHref("//g", "http://a/b/c/d;p?q")).toEqual({ kind: "web", address: "https://g/" });
  });

  test("without a base they are files beside the book", () => {
    expect(readHref("./plans/refuge.pdf", null)).toEqual({ kind: "file", path: "./plans/refuge.pdf" });
  });

  test("a fragment alone is a place in the book, percent-decoded", () => {
    expect(readHref("#low%20water", "http://a/")).toEqual({ kind: "place", target: "low water" });
    expect(readHref("#100%", null)).toEqual({ kind: "place", target: "100%" });
  });
});

test("mailto addresses are emails and keep their fields", () => {
  // RFC 6068 section 6 (from memory).
  const address = "mailto:joe@example.com?cc=bob@example.com&body=hello";
  expect(readHref(address, null)).toEqual({ kind: "email", address });
  expect(shortDestination({ kind: "email", address })).toBe("joe@example.com");
});

test("the scheme is read as a browser reads it", () => {
  expect(schemeOf("HTTPS://a")).toBe("https:");
  expect(schemeOf("ht\ttps://a")).toBe("https:");
  expect(schemeOf("tides/today")).toBeNull();
});

test("a stored destination is refused when it is not one", () => {
  for (const wrong of [
    null,
    "https://a.example",
    {},
    { kind: "web" },
    { kind: "place", target: "" },
    { kind: "phone" },
    { kind: "file", file: "../x" },
    { kind: "file", share: "file:///c:/x" },
    { kind: "file", path: "//host/x" },
    { kind: "file", path: "\\\\host\\share\\x.pdf" },
    { kind: "file", path: "/\t\\host" },
  ]) {
    expect(() => assertDestination(wrong)).toThrow();
  }
  expect(() =>
    assertDestination({ kind: "web", address: `https://a.example/${"x".repeat(8000)}` }),
  ).toThrow();
  expect(() => assertDestination({ kind: "place", target: "h1" })).not.toThrow();
});

test("a page or place of a companion file is told behind its name, and named in an address as RFC 8118 has it", () => {
  const names = { files: new Map([["f1", "plan.pdf"]]), places: new Map() };
  const to = (at: string): Destination => ({ kind: "file", file: "f1", at });
  expect(nameDestination(to("page=12"), names)).toBe("plan.pdf, page 12");
  expect(nameDestination(to("nameddest=Goose%20wing"), names)).toBe("plan.pdf, “Goose wing”");
  expect(shortDestination(to("low-water"), names)).toBe("plan.pdf, “low-water”");
  expect(writeDestination(to("page=12"))).toBe("companion:f1#page=12");
  expect(sameDestination(to("page=1"), to("page=2"))).toBe(false);
  expect(() => assertDestination(to("page=12"))).not.toThrow();
  for (const at of ["", "a b", "a#b", "a\nb"]) expect(() => assertDestination(to(at))).toThrow();
});

test("companion files and places are told by their names, shared files by their host", () => {
  const names = { files: new Map([["f1", "R3 plan.pdf"]]), places: new Map([["h1", "Low water"]]) };
  expect(shortDestination({ kind: "file", file: "f1" }, names)).toBe("R3 plan.pdf");
  expect(shortDestination({ kind: "file", file: "f2" }, names)).toBe("a file that is gone");
  expect(shortDestination({ kind: "place", target: "h1" }, names)).toBe("Low water");
  expect(shortDestination({ kind: "file", share: "https://www.drive.example/s/1" }, names)).toBe(
    "drive.example",
  );
  expect(() => assertDestination({ kind: "file", file: "f1" })).not.toThrow();
});

test("a destination that was written is read back as it was", () => {
  const word = fc.stringMatching(/^[a-z0-9-]{1,12}$/).filter((text) => !/^-|-$/.test(text));
  const web = fc
    .webUrl({ withQueryParameters: true, withFragments: true, validSchemes: ["http", "https"] })
    .map((address) => webDestination(address));
  const email = fc
    .tuple(word, word, fc.string({ unit: "grapheme", maxLength: 20 }))
    .map(([local, host, subject]): Destination => ({
      kind: "email",
      address: writeMailto({ ...emptyMessage(), to: [`${local}@${host}.example`], subject }),
    }));
  const place = word.map((target): Destination => ({ kind: "place", target }));
  const file = fc
    .tuple(word, word)
    .map(([folder, name]): Destination => ({ kind: "file", path: `${folder}/${name}.pdf` }));
  fc.assert(
    fc.property(fc.oneof(web, email, place, file), (destination) => {
      assertDestination(destination);
      expect(readHref(writeDestination(destination), null)).toEqual(destination);
      // What an author sees of an address can be pasted again and means the same.
      if (destination.kind === "web" && !/[.,;:!)\]'"]$/.test(destination.address))
        expect(recognise(destination.address).destination).toEqual(destination);
    }),
  );
});
