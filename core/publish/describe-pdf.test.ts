import { describe, expect, test } from "@jest/globals";
import { describePdf } from "./describe-pdf.ts";

const latin1 = (bytes: Uint8Array): string => String.fromCharCode(...bytes);
const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));

/** The least of a PDF that has link annotations, as the typesetter writes them. */
function pdfWith(...markers: string[]): Uint8Array {
  const objects = markers
    .map(
      (marker, i) =>
        `${i + 3} 0 obj\n<<\n  /A <<\n    /S /URI\n    /URI (${marker})\n  >>\n  /Contents (${marker})\n>>\nendobj\n`,
    )
    .join("\n");
  return bytes(
    `%PDF-1.7\n\x80\xff\n${objects}xref\n0 1\n0000000000 65535 f \ntrailer\n<<\n  /Size 9\n  /Root 1 0 R\n>>\nstartxref\n77\n%%EOF`,
  );
}

const marker = (n: number): string => `https://vennet.invalid/${n}`;

describe("descriptions", () => {
  // ISO 32000, 7.5.6: an update is appended, and what was there stays to the byte.
  test("are appended as an update that leaves all before it as it was", () => {
    const before = pdfWith(marker(0), "https://a.example/");
    const after = describePdf(before, [
      { marker: marker(0), address: "https://b.example/", description: "Tide office" },
    ]);
    expect(latin1(after.subarray(0, before.length))).toBe(latin1(before));
    const update = latin1(after.subarray(before.length));
    expect(update).toContain("/URI (https://b.example/)");
    expect(update).toContain("/Prev 77");
    expect(update).not.toContain("https://a.example/");
    expect(update).not.toContain("vennet.invalid");
  });

  test("the new cross-reference table points at each object's first byte, and the end at the table", () => {
    const after = latin1(
      describePdf(pdfWith(marker(0), marker(1)), [
        { marker: marker(0), address: "https://a.example/", description: "A" },
        { marker: marker(1), address: "https://b.example/", description: "B" },
      ]),
    );
    const table = Number(/startxref\n(\d+)\n%%EOF\n$/.exec(after)![1]);
    expect(after.slice(table, table + 5)).toBe("xref\n");
    const entries = [...after.slice(table).matchAll(/^(\d+) 1\n(\d{10}) 00000 n $/gm)];
    expect(entries.map(([, number]) => number)).toEqual(["3", "4"]);
    for (const [, number, offset] of entries)
      expect(after.slice(Number(offset))).toMatch(new RegExp(`^${number} 0 obj`));
  });

  // ISO 32000, 7.3.4.2 and 7.9.2.2: brackets and backslashes are escaped; text strings are UTF-16 with a mark.
  test("any words and any address are written so that they are read back as they were", () => {
    const after = latin1(
      describePdf(pdfWith(marker(0)), [
        { marker: marker(0), address: "https://a.example/(b)\\é$&", description: "Ü 🌊" },
      ]),
    );
    expect(after).toContain("/URI (https://a.example/\\(b\\)\\\\%C3%A9$&)");
    expect(after).toContain("/Contents <FEFF00DC0020D83CDF0A>");
  });

  test("a link that broke over pages is described in each of its annotations", () => {
    const after = latin1(
      describePdf(pdfWith(marker(0), marker(0)), [
        { marker: marker(0), address: "https://a.example/", description: "A" },
      ]),
    );
    expect(after.match(/\/URI \(https:\/\/a\.example\/\)/g)).toHaveLength(2);
  });

  test("nothing is done where nothing is described; a missing marker or trailer is an error", () => {
    const pdf = pdfWith("https://a.example/");
    expect(describePdf(pdf, [])).toBe(pdf);
    const link = { marker: marker(7), address: "https://a.example/", description: "A" };
    expect(() => describePdf(pdf, [link])).toThrow(expect.objectContaining({ code: "marker" }));
    expect(() => describePdf(bytes("%PDF-1.7"), [link])).toThrow(
      expect.objectContaining({ code: "trailer" }),
    );
  });
});
