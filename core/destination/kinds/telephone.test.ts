import { describe, expect, test } from "@jest/globals";
import { readHref } from "../destination.ts";
import { isPlainlyAnAddress, recognise } from "../recognise.ts";
import { telephone } from "./telephone.ts";

const read = (address: string) => telephone.fromAddress!(address);

describe("a telephone number", () => {
  // The examples of RFC 3966, section 6, and one of an extension (section 3), from memory.
  test.each([
    ["tel:+1-201-555-0123", "+1 201 555 0123"],
    ["tel:7042;phone-context=example.com", "7042"],
    ["tel:863-1234;phone-context=+1-914-555", "863 1234"],
    ["tel:+358-555-1234567;ext=567", "+358 555 1234567, extension 567"],
    ["tel:+44.(20).7946-0018", "+44 (20) 7946 0018"],
  ])("%s is read as it is, and shown as %s", (address, name) => {
    const destination = read(address);
    expect(telephone.write(destination)).toBe(address);
    expect(telephone.name(destination, {} as never)).toBe(name);
  });

  test.each([
    ["tel:", "not a telephone number"],
    ["tel:+", "not a telephone number"],
    ["tel:call me", "not a telephone number"],
    ["tel:+44-20-7946-0000-0000-0000", "not a telephone number"],
    ["tel:+44-20-7946-0000;ext=1 2", "not a telephone number"],
    ["tel:020-7946-0000", "Begin it with + and the country"],
  ])("%s is refused", (address, message) => {
    expect(() => read(address)).toThrow(message);
  });

  // How manuscripts write them (common practice).
  test.each([
    ["tel:+44 20 7946 0000", "tel:+44-20-7946-0000"],
    ["tel:+44%20(0)20%207946%200000", "tel:+44-20-7946-0000"],
    ["tel://+44 20 7946–0000;ext=12", "tel:+44-20-7946-0000;ext=12"],
  ])("%s in a manuscript is %s", (href, address) => {
    expect(readHref(href, null)).toEqual({ kind: "telephone", address });
  });

  test.each([
    ["+44 20 7946 0000", "tel:+44-20-7946-0000"],
    ["+44 (0)20 7946 0000", "tel:+44-20-7946-0000"],
    ["tel: +44 20 7946 0000", "tel:+44-20-7946-0000"],
  ])("typed as %s it is %s", (typed, address) => {
    expect(recognise(typed).destination).toEqual({ kind: "telephone", address });
  });

  test("is not seen in what only looks like one, and becomes a link by itself only where it says tel:", () => {
    for (const typed of ["+5", "+ 44", "44 20 7946 0000"]) expect(() => recognise(typed)).toThrow();
    expect(isPlainlyAnAddress("tel:+44-20-7946-0000")).toBe(true);
    expect(isPlainlyAnAddress("+44")).toBe(false);
  });

  test("is asked of nobody", () => {
    expect(telephone.asked(read("tel:+1-201-555-0123"))).toBeNull();
  });
});
