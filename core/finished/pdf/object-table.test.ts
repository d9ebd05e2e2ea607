import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { pdfOfObjects, streamOf } from "../../test/pdf-of-objects.ts";
import { smallPdf } from "../../test/small-pdf.ts";
import { hasSoundTable } from "./object-table.ts";
import { proveSaved } from "./prove-saved.ts";
import { readFinishedPdf } from "./read-finished.ts";
import { saveFinishedPdf } from "./save-finished.ts";

const names = { files: new Map<string, string>(), places: new Map<string, string>() };
const leaflet = readFileSync(
  new URL("../../../web/public/examples/huts-of-the-outer-sands.pdf", import.meta.url),
);
const changed = (bytes: Uint8Array, change: (text: string) => string): Uint8Array =>
  new Uint8Array(Buffer.from(change(Buffer.from(bytes).toString("latin1")), "latin1"));
/** Describes every link, saves, and proves. */
async function described(bytes: Uint8Array) {
  const { facts, pages } = await readFinishedPdf(bytes);
  const asked = pages.map((page) => ({
    ...page,
    links: page.links.map((link, i) => ({ ...link, description: `Link ${i}` })),
  }));
  const saved = await saveFinishedPdf(bytes, asked, names);
  return { facts, saved: saved.bytes, proof: await proveSaved(bytes, saved.bytes, asked, names) };
}

// ISO 32000-1, 7.5.4: what readers’ programs do where its rules are not kept is common practice.
describe.each([
  ["a table", () => Promise.resolve(new Uint8Array(leaflet))],
  ["a table in a stream", () => smallPdf()],
])("a file with %s", (_what, make) => {
  test("is sound, as is what is saved of it", async () => {
    const bytes = await make();
    const { facts, saved, proof } = await described(bytes);
    expect([hasSoundTable(bytes), facts.hasBrokenTable, hasSoundTable(saved), proof.complete]).toEqual([
      true,
      false,
      true,
      true,
    ]);
    expect(saved.length).toBeLessThan(bytes.length * 1.6);
  });

  test.each<[string, (text: string) => string]>([
    ["leads elsewhere", (text) => text.replace(/startxref\s+\d+/, "startxref\n99")],
    ["leads beyond the end", (text) => text.replace(/startxref\s+\d+/, "startxref\n999999999")],
    ["is before what came in later", (text) => `${text.slice(0, 15)}%%%%${text.slice(15)}`],
    ["lies too far before the end", (text) => text + "\0".repeat(3000)],
  ])("that %s is told; what is saved has a whole one, and every link is proven", async (_how, change) => {
    const bytes = changed(await make(), change);
    expect(hasSoundTable(bytes)).toBe(false);
    const { facts, saved, proof } = await described(bytes);
    expect([facts.hasBrokenTable, hasSoundTable(saved), proof.complete]).toEqual([true, true, true]);
    expect(Buffer.from(saved.subarray(0, bytes.length)).equals(Buffer.from(bytes))).toBe(true);
  });

  test("with something before its header counts from that, as programs do", async () => {
    const bytes = changed(await make(), (text) => `HTTP/1.1 200 OK\r\n\r\n${text}`);
    const { facts, saved, proof } = await described(bytes);
    expect([facts.hasBrokenTable, hasSoundTable(saved), proof.complete]).toEqual([false, true, true]);
  });
});

// ISO 32000-1, 7.5.5: objects whose number is as high as Size are taken for missing. Read by qpdf.
test("the last object of a file is counted among those of what is saved, though it is not changed", async () => {
  const { bytes } = pdfOfObjects({
    catalog: "<</Type /Catalog /Pages {{pages}}>>",
    pages: "<</Type /Pages /Kids [{{page}}] /Count 1>>",
    page: "<</Type /Page /Parent {{pages}} /MediaBox [0 0 300 300] /Contents {{words}} /Annots [{{link}}] /Resources <<>>>>",
    link: "<</Type /Annot /Subtype /Link /Rect [10 10 90 30] /A <</S /URI /URI (https://tides.example/)>>>>",
    words: streamOf("0 0 m"),
  });
  const folder = mkdtempSync(join(tmpdir(), "vennet-last-object-"));
  try {
    const file = join(folder, "saved.pdf");
    let saved = bytes;
    for (let i = 0; i < 2; i++) {
      const again = await described(saved);
      expect(again.proof.complete).toBe(true);
      saved = again.saved;
      writeFileSync(file, saved);
      expect(spawnSync("qpdf", ["--check", file], { encoding: "utf8" })).toMatchObject({
        stderr: "",
        status: 0,
      });
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test("entries that lead to other objects are told", async () => {
  const bytes = changed(leaflet, (text) =>
    text.replace(
      /\n(\d{10}) 00000 n/g,
      (_, at: string) => `\n${String(Number(at) + 7).padStart(10, "0")} 00000 n`,
    ),
  );
  expect(hasSoundTable(bytes)).toBe(false);
  expect((await described(bytes)).proof.complete).toBe(true);
});

test("a table that goes round in circles, or is none, ends", () => {
  const file = (table: string): Uint8Array =>
    new TextEncoder().encode(`%PDF-1.7\n${table}\nstartxref\n9\n%%EOF\n`);
  expect(hasSoundTable(file("xref\n0 0\ntrailer\n<</Prev 9>>"))).toBe(true);
  for (const table of [
    "xref\n",
    "xref\nx y z",
    "xref\n0 99999999\n",
    "xref\n-5 3\ntrailer <<>>",
    "1 0 obj <</Type /Page>>",
    "",
  ])
    expect([table, hasSoundTable(file(table))]).toEqual([table, false]);
});
