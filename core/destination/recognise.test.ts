import { describe, expect, test } from "@jest/globals";
import { isPlainlyAnAddress, recognise } from "./recognise.ts";

describe("what is typed into the link line", () => {
  test.each([
    ["https://tides.example/today", "https://tides.example/today"],
    ["  https://tides.example/today  ", "https://tides.example/today"],
    ["<https://tides.example/today>", "https://tides.example/today"],
    ["“https://tides.example/today”", "https://tides.example/today"],
    ["https://tides.example/today.", "https://tides.example/today"],
    ["www.tides.example", "https://www.tides.example/"],
    ["tides.example/today", "https://tides.example/today"],
    ["iana.org", "https://iana.org/"],
    ["https://tides.example/todayhttps://tides.example/today", "https://tides.example/today"],
    ["https://tides.example/today https://tides.example/today", "https://tides.example/today"],
    ["https://http://tides.example/", "http://tides.example/"],
    ["https:tides.example/today", "https://tides.example/today"],
    ["‘www.tides.example’,", "https://www.tides.example/"],
    ["„https://tides.example/a“.", "https://tides.example/a"],
    ["https://tides.example/ebb_(spring)", "https://tides.example/ebb_(spring)"],
    ["(https://tides.example/ebb)", "https://tides.example/ebb"],
    ["URL: https://tides.example/ebb", "https://tides.example/ebb"],
    ["tides.example:8080/a", "https://tides.example:8080/a"],
    ["ttps://tides.example/a", "https://tides.example/a"],
    ["htp://tides.example/a", "http://tides.example/a"],
    ["hhttps://tides.example/a", "https://tides.example/a"],
    ["hptts://tides.example/a", "https://tides.example/a"],
    ["https;//tides.example/a", "https://tides.example/a"],
    ["http//tides.example/a", "http://tides.example/a"],
    ["https//:tides.example/a", "https://tides.example/a"],
    ["http:\\\\tides.example\\a", "http://tides.example/a"],
    ["//tides.example/a", "https://tides.example/a"],
    ["https://tides.example/?day=1&amp;hour=2", "https://tides.example/?day=1&hour=2"],
    ["https://tides.example/a&amp;b", "https://tides.example/a&amp;b"],
    ["[Low water](https://tides.example/ebb_(spring))", "https://tides.example/ebb_(spring)"],
    // Identifiers of publications, by the resolver that the DOI Handbook names (3.8); 10.5555 is for examples (from memory).
    ["doi:10.5555/tides.12", "https://doi.org/10.5555/tides.12"],
    ["10.5555/tides(1)a.", "https://doi.org/10.5555/tides(1)a"],
  ])("%j is the web address %s", (typed, address) => {
    expect(recognise(typed).destination).toEqual({ kind: "web", address });
  });

  test.each([
    "wardens@causeways.example",
    "mailto:wardens@causeways.example",
    "mailto:mailto:wardens@causeways.example",
    "<wardens@causeways.example>",
    "wardens@causeways.examplewardens@causeways.example",
    "Wardens of the Causeways <wardens@causeways.example>",
    '"Tindrum, Orla" <wardens@causeways.example>',
  ])("%s is an email", (typed) => {
    expect(recognise(typed).destination).toEqual({
      kind: "email",
      address: "mailto:wardens@causeways.example",
    });
  });

  test.each(["steps//low", "tps/low", "pst://tides.example", "ftp://tides.example", "10.5/low"])(
    "%s is no address of the web that was mistyped",
    (typed) => {
      expect(() => recognise(typed)).toThrow();
    },
  );

  test("several email addresses are one message to all of them", () => {
    expect(recognise("Orla <a@causeways.example>, Pell <b@causeways.example>").destination).toEqual({
      kind: "email",
      address: "mailto:a@causeways.example,b@causeways.example",
    });
    expect(recognise("a@causeways.example; b@causeways.example").destination).toEqual({
      kind: "email",
      address: "mailto:a@causeways.example,b@causeways.example",
    });
  });

  test("a message without its scheme is one, and nothing else with a question in it", () => {
    const typed = "wardens@causeways.example?subject=Low water, again";
    expect(recognise(typed).destination).toEqual({
      kind: "email",
      address: "mailto:wardens@causeways.example?subject=Low%20water%2C%20again",
    });
    expect(() => recognise("who@where?")).toThrow();
    expect(() => recognise("?subject=x")).toThrow();
  });

  test("a message's own words keep their full stop", () => {
    const address = "mailto:wardens@causeways.example?body=Good%20day.";
    expect(recognise(address)).toEqual({ destination: { kind: "email", address }, mended: [] });
  });

  test("what was mended is told", () => {
    expect(recognise("https://tides.example/").mended).toEqual([]);
    expect(recognise("<www.tides.example>,").mended).toHaveLength(3);
    expect(recognise("www.tides.example.").mended).toHaveLength(2);
  });

  test.each([
    ["", "empty"],
    ["the tide office", "address"],
    ["chapter.onward", "address"],
    ["javascript:alert(1)", "scheme"],
    ["data:text/html,x", "scheme"],
    ["C:\\book\\map.pdf", "disk"],
    ["file:///home/orla/map.pdf", "disk"],
    ["\\\\share\\map.pdf", "disk"],
    ["/home/orla/map.pdf", "disk"],
    ["~/map.pdf", "disk"],
    ["mailto:?subject=x", "address"],
  ])("%j is refused as %s", (typed, code) => {
    expect(() => recognise(typed)).toThrow(expect.objectContaining({ code }));
  });
});

// Common practice: "www." is enough for a link to be made unasked, a bare name.tld is not.
test("only what is plainly an address links a selection on paste", () => {
  expect(isPlainlyAnAddress("https://tides.example/")).toBe(true);
  expect(isPlainlyAnAddress("www.tides.example")).toBe(true);
  expect(isPlainlyAnAddress("wardens@causeways.example")).toBe(true);
  expect(isPlainlyAnAddress("tides.example")).toBe(false);
  expect(isPlainlyAnAddress("see https://tides.example/")).toBe(false);
  expect(isPlainlyAnAddress("javascript:alert(1)")).toBe(false);
});

test("what is as long as a chapter is looked at once, not once for each of its letters", () => {
  const long = `https://tides.example/?${"a.b&".repeat(500_000)}`;
  expect(isPlainlyAnAddress(long)).toBe(true);
  expect(isPlainlyAnAddress(`${long} ${long}`)).toBe(false);
});
