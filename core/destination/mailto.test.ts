import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { emptyMessage, readMailto, splitRecipients, writeMailto, type MailMessage } from "./mailto.ts";

// RFC 6068 section 6 (from memory).
describe("the examples of RFC 6068", () => {
  const cases: [string, Partial<MailMessage>][] = [
    ["mailto:chris@example.com", { to: ["chris@example.com"] }],
    [
      "mailto:infobot@example.com?subject=current-issue",
      { to: ["infobot@example.com"], subject: "current-issue" },
    ],
    [
      "mailto:infobot@example.com?body=send%20current-issue%0D%0Asend%20index",
      { to: ["infobot@example.com"], body: "send current-issue\nsend index" },
    ],
    [
      "mailto:joe@example.com?cc=bob@example.com&body=hello",
      { to: ["joe@example.com"], cc: ["bob@example.com"], body: "hello" },
    ],
    ["mailto:gorby%25kremvax@example.com", { to: ["gorby%kremvax@example.com"] }],
    [
      "mailto:unlikely%3Faddress@example.com?blat=foop",
      { to: ["unlikely?address@example.com"], other: [["blat", "foop"]] },
    ],
    ["mailto:Mike%26family@example.org", { to: ["Mike&family@example.org"] }],
    ["mailto:a@example.com,b@example.com", { to: ["a@example.com", "b@example.com"] }],
  ];
  test.each(cases)("%s is read, and written again as it was", (address, fields) => {
    expect(readMailto(address)).toEqual({ ...emptyMessage(), ...fields });
    expect(writeMailto(readMailto(address))).toBe(address);
  });

  test("a comma inside an address does not divide recipients", () => {
    const address = "mailto:%22not%40me%2C%20you%22@example.org";
    expect(readMailto(address).to).toEqual(['"not@me, you"@example.org']);
    expect(readMailto(writeMailto(readMailto(address)))).toEqual(readMailto(address));
  });

  test("recipients of a to field count with those of the path, names of fields in any case", () => {
    expect(readMailto("mailto:a@example.com?TO=b@example.com&CC=c@example.com")).toMatchObject({
      to: ["a@example.com", "b@example.com"],
      cc: ["c@example.com"],
    });
  });
});

test("a plus is a plus, and a blank is never written as one", () => {
  expect(readMailto("mailto:a+b@example.com?subject=one+one")).toMatchObject({
    to: ["a+b@example.com"],
    subject: "one+one",
  });
  expect(writeMailto({ ...emptyMessage(), to: ["a+b@example.com"], subject: "low tide & wind" })).toBe(
    "mailto:a+b@example.com?subject=low%20tide%20%26%20wind",
  );
});

test("what is not percent-encoding stays as it stands", () => {
  expect(readMailto("mailto:a@example.com?subject=100%").subject).toBe("100%");
});

test("a typed line of recipients is divided at commas, semicolons and blanks", () => {
  expect(splitRecipients(" a@example.com; b@example.com,c@example.com ")).toEqual([
    "a@example.com",
    "b@example.com",
    "c@example.com",
  ]);
});

test("any message is written and read back whole", () => {
  const words = fc.string({ unit: "grapheme", maxLength: 40 }).filter((text) => !text.includes("\ufffd"));
  const line = words.map((text) => text.replace(/[\r\n]+/g, " "));
  const address = fc
    .tuple(fc.stringMatching(/^[a-z0-9%&+.?/=,#"-]{1,20}$/), fc.stringMatching(/^[a-z]{1,9}\.example$/))
    .map(([local, host]) => `${local}@${host}`);
  const message = fc.record({
    to: fc.array(address, { maxLength: 3 }),
    cc: fc.array(address, { maxLength: 2 }),
    bcc: fc.array(address, { maxLength: 2 }),
    subject: line,
    body: words.map((text) => text.replace(/\r\n?/g, "\n")),
    other: fc.constant([] as [string, string][]),
  });
  fc.assert(
    fc.property(message, (given) => {
      const address = writeMailto(given);
      expect(address).toMatch(/^mailto:[\x21-\x7e]*$/);
      expect(readMailto(address)).toEqual(given);
    }),
  );
});
