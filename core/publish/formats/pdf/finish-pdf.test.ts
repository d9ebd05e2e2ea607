import { describe, expect, test } from "@jest/globals";
import { bookOf } from "../../../test/sample-book.ts";
import { finishPdf } from "./finish-pdf.ts";
import { typesetBook } from "./typeset-book.ts";

const latin1 = (bytes: Uint8Array): string => String.fromCharCode(...bytes);
const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));

/** A PDF of these objects, with its table, as the typesetter writes it. */
function pdfOf(objects: string[], root: number): Uint8Array {
  let text = "%PDF-1.7\n\x80\xff\n";
  let table = `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  objects.forEach((body, i) => {
    table += `${String(text.length).padStart(10, "0")} 00000 n \n`;
    text += `${i + 1} 0 obj\n${body}\nendobj\n\n`;
  });
  return bytes(
    `${text}${table}trailer\n<<\n  /Size ${objects.length + 1}\n  /Root ${root} 0 R\n>>\nstartxref\n${text.length}\n%%EOF`,
  );
}

/** The least of a PDF that has link annotations, from its fourth object on, all on one page. */
const pdfWith = (...markers: string[]): Uint8Array =>
  pdfOf(
    [
      "<<\n  /Type /Catalog\n  /Pages 2 0 R\n>>",
      "<<\n  /Type /Pages\n  /Count 1\n  /Kids [3 0 R]\n>>",
      `<<\n  /Type /Page\n  /MediaBox [0 0 400 600]\n  /Annots [${markers.map((_, i) => `${i + 4} 0 R`).join(" ")}]\n>>`,
      ...markers.map(
        (marker) => `<<\n  /A <<\n    /S /URI\n    /URI (${marker})\n  >>\n  /Contents (${marker})\n>>`,
      ),
    ],
    1,
  );

const marker = (n: number): string => `https://vennet.invalid/${n}`;

describe("descriptions", () => {
  // ISO 32000, 7.5.6: an update is appended, and what was there stays to the byte.
  test("are appended as an update that leaves all before it as it was", () => {
    const before = pdfWith(marker(0), "https://a.example/");
    const after = finishPdf(
      before,
      [{ marker: marker(0), to: { address: "https://b.example/" }, description: "Tide office" }],
      [],
    );
    expect(latin1(after.subarray(0, before.length))).toBe(latin1(before));
    const update = latin1(after.subarray(before.length));
    expect(update).toContain("/URI (https://b.example/)");
    expect(update).toMatch(/\/Prev \d+/);
    expect(update).not.toContain("https://a.example/");
    expect(update).not.toContain("vennet.invalid");
  });

  test("the new cross-reference table points at each object's first byte, and the end at the table", () => {
    const after = latin1(
      finishPdf(
        pdfWith(marker(0), marker(1)),
        [
          { marker: marker(0), to: { address: "https://a.example/" }, description: "A" },
          { marker: marker(1), to: { address: "https://b.example/" }, description: "B" },
        ],
        [],
      ),
    );
    const table = Number(/startxref\n(\d+)\n%%EOF\n$/.exec(after)![1]);
    expect(after.slice(table, table + 5)).toBe("xref\n");
    const entries = [...after.slice(table).matchAll(/^(\d+) 1\n(\d{10}) 00000 n $/gm)];
    expect(entries.map(([, number]) => number)).toEqual(["4", "5"]);
    for (const [, number, offset] of entries)
      expect(after.slice(Number(offset))).toMatch(new RegExp(`^${number} 0 obj`));
  });

  // ISO 32000, 7.3.4.2 and 7.9.2.2: brackets and backslashes are escaped; text strings are UTF-16 with a mark.
  test("any words and any address are written so that they are read back as they were", () => {
    const after = latin1(
      finishPdf(
        pdfWith(marker(0)),
        [{ marker: marker(0), to: { address: "https://a.example/(b)\\é$&" }, description: "Ü 🌊" }],
        [],
      ),
    );
    expect(after).toContain("/URI (https://a.example/\\(b\\)\\\\%C3%A9$&)");
    expect(after).toContain("/Contents <FEFF00DC0020D83CDF0A>");
  });

  test("a link that broke over pages is described in each of its annotations", () => {
    const after = latin1(
      finishPdf(
        pdfWith(marker(0), marker(0)),
        [{ marker: marker(0), to: { address: "https://a.example/" }, description: "A" }],
        [],
      ),
    );
    expect(after.match(/\/URI \(https:\/\/a\.example\/\)/g)).toHaveLength(2);
  });

  test("nothing is done where nothing is described; a missing marker or trailer is an error", () => {
    const pdf = pdfWith("https://a.example/");
    expect(finishPdf(pdf, [], [])).toBe(pdf);
    const link = { marker: marker(7), to: { address: "https://a.example/" }, description: "A" };
    expect(() => finishPdf(pdf, [link], [])).toThrow(expect.objectContaining({ code: "marker" }));
    expect(() => finishPdf(bytes("%PDF-1.7"), [link], [])).toThrow(
      expect.objectContaining({ code: "trailer" }),
    );
  });
});

test("an address of the author's that looks like a marker stays what it is", () => {
  const { files, marked } = typesetBook(
    bookOf('# T\n\n[own](https://vennet.invalid/0) [described](https://b.example/ "B")'),
  );
  expect(marked.map((link) => link.marker)).toEqual([
    "https://vennet-1.invalid/0",
    "https://vennet-1.invalid/1",
  ]);
  expect(files.get("/chapter-1.json")).not.toContain("https://vennet.invalid/");
  const after = latin1(finishPdf(pdfWith(marked[0]!.marker, marked[1]!.marker), marked, []));
  const update = after.split("%%EOF")[1]!;
  expect(update).toContain("/URI (https://vennet.invalid/0)");
  expect(update).toContain("/URI (https://b.example/)");
});

describe("names of places", () => {
  /** A PDF of two pages; one heading has a name already. */
  const page = "<<\n  /Type /Page\n  /MediaBox [0 0 400 600]\n>>";
  const pdf = (names: string) =>
    pdfOf(
      [
        "<<\n  /Type /Pages\n  /Count 2\n  /Kids [2 0 R 3 0 R]\n>>",
        page,
        page,
        "[2 0 R /XYZ 50 500 null]",
        `<<\n  /Type /Catalog\n  /Pages 1 0 R${names}\n>>`,
      ],
      5,
    );
  const named = "\n  /Names <<\n    /Dests <<\n      /Names [(heading) 4 0 R]\n    >>\n  >>";
  const place = (id: string, page: number, y: number) => ({ id, by: id, page, x: 54, y });

  // ISO 32000, 12.3.2.3 and 7.9.6: destinations by name, in a tree that is sorted by its keys.
  test("are added, with their page and their line, to those that headings have", () => {
    const after = latin1(finishPdf(pdf(named), [], [place("tide", 2, 110), place("anchor", 1, 40)]));
    expect(after).toContain("/Names [(anchor) 7 0 R (heading) 4 0 R (tide) 6 0 R]");
    // 110 points from the top of 600.
    expect(after).toContain("6 0 obj\n[3 0 R /XYZ 54 490 null]");
    expect(after).toContain("/Size 8");
  });

  test("are given where there were none; a name that is there stays", () => {
    expect(latin1(finishPdf(pdf(""), [], [place("tide", 1, 4)]))).toContain(
      "/Dests <</Names [(tide) 6 0 R]>>",
    );
    const again = latin1(finishPdf(pdf(named), [], [place("heading", 2, 300)]));
    expect(again).toContain("/Names [(heading) 4 0 R]");
    // Where it leads is as exact as all others.
    expect(again).toContain("4 0 obj\n[3 0 R /XYZ 54 300 null]");
    expect(() => finishPdf(pdf(named), [], [place("x", 9, 1)])).toThrow(
      expect.objectContaining({ code: "page" }),
    );
  });

  test("a marked link leads to a place by its name", () => {
    const link = { marker: marker(0), to: { place: "tide" }, description: "Low water" };
    const after = latin1(finishPdf(pdfWith(marker(0)), [link], [])).split("%%EOF")[1]!;
    expect(after).toContain("/Dest (tide)");
    expect(after).not.toContain("/A <<");
  });
});
