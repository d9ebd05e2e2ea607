import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { smallPdf } from "../../test/small-pdf.ts";
import { bytesToHex } from "@noble/hashes/utils.js";
import { FinishedError } from "../errors.ts";
import { rc4 } from "./rc4.ts";
import type { PdfPage } from "./pdf-page.ts";
import { proveSaved } from "./prove-saved.ts";
import { readFinishedPdf } from "./read-finished.ts";
import { saveFinishedPdf } from "./save-finished.ts";

// Encrypted by qpdf (Debian's package of that name), which reads what was saved, too.
const names = { files: new Map<string, string>(), places: new Map<string, string>() };
let folder = "";
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "encrypted-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

async function encrypted(passwords: [user: string, owner: string], ...how: string[]): Promise<Uint8Array> {
  const [plain, locked] = [join(folder, "plain.pdf"), join(folder, "locked.pdf")];
  writeFileSync(plain, await smallPdf({ objectStreams: true }));
  execFileSync("qpdf", ["--allow-weak-crypto", "--encrypt", ...passwords, ...how, "--", plain, locked]);
  return new Uint8Array(readFileSync(locked));
}

const ways: [string, string[]][] = [
  ["RC4 of 40 bits", ["40"]],
  ["RC4 of 128 bits", ["128", "--use-aes=n"]],
  ["RC4 by a crypt filter", ["128", "--use-aes=n", "--force-V4"]],
  ["AES of 128 bits", ["128", "--use-aes=y"]],
  ["AES of 128 bits, metadata as it is", ["128", "--use-aes=y", "--cleartext-metadata"]],
  ["AES of 256 bits", ["256"]],
  ["AES of 256 bits, revision 5", ["256", "--force-R5"]],
];

describe.each(ways)("a PDF that everybody may open, encrypted by %s", (_, how) => {
  test("is read, changed, and proven, and others read what was written into it", async () => {
    const bytes = await encrypted(["", "owner's"], ...how);
    const { pages } = await readFinishedPdf(bytes);
    const plain = await readFinishedPdf(await smallPdf({ objectStreams: true }));
    const told = (all: readonly PdfPage[]): unknown[] =>
      all.map(({ links }) =>
        links.map(({ words, destination, description }) => [words, destination, description]),
      );
    expect(told(pages)).toEqual(told(plain.pages));

    const [first, ...others] = pages as [PdfPage, ...PdfPage[]];
    const address = "https://sands.hesterley.example/(low)";
    const [changed, , ...kept] = first.links;
    const asked = [
      {
        ...first,
        links: [
          {
            ...changed!,
            destination: { kind: "web" as const, address },
            description: "Sands — at low water",
          },
          ...kept,
          {
            ...changed!,
            id: "fresh1",
            from: null,
            areas: [[100, 100, 160, 120] as const],
            description: null,
          },
        ],
      },
      ...others,
    ] as PdfPage[];
    const saved = await saveFinishedPdf(bytes, asked, names);
    expect(saved).toMatchObject({ added: 1, changed: 1, removed: 1 });
    expect(Buffer.from(saved.bytes.subarray(0, bytes.length)).equals(Buffer.from(bytes))).toBe(true);
    expect(await proveSaved(bytes, saved.bytes, asked, names)).toMatchObject({ complete: true });

    const file = join(folder, "saved.pdf");
    writeFileSync(file, saved.bytes);
    expect(execFileSync("qpdf", ["--check", file], { encoding: "utf8" })).toContain("R = ");
    const objects = execFileSync("qpdf", ["--json", file], { encoding: "utf8" });
    expect(objects).toContain(`"u:${address}"`);
    expect(objects).toContain('"u:Sands — at low water"');
    // Nothing of it can be read by who has no key.
    expect(Buffer.from(saved.bytes).includes("sands.hesterley")).toBe(false);
    // What was saved is brought in again, and changed once more.
    const again = await readFinishedPdf(saved.bytes);
    const less = again.pages.map((page) => ({ ...page, links: page.links.slice(1) }));
    const twice = await saveFinishedPdf(saved.bytes, less, names);
    expect(await proveSaved(saved.bytes, twice.bytes, less, names)).toMatchObject({ complete: true });
  });
});

test("one that opens with a password, or forbids changes, is refused with what to do", async () => {
  const refused = async (passwords: [string, string], ...how: string[]): Promise<unknown> =>
    readFinishedPdf(await encrypted(passwords, ...how)).catch((error: unknown) => error);
  for (const how of [["128", "--use-aes=y"], ["256"]])
    expect(await refused(["reader's", "owner's"], ...how)).toMatchObject({
      code: "password",
      message: expect.stringContaining("opens with a password only"),
    });
  expect(await refused(["", "owner's"], "256", "--modify=none")).toMatchObject({
    code: "encrypted",
    message: expect.stringContaining("forbids changes"),
  });
  expect(await readFinishedPdf(await encrypted(["", "owner's"], "256", "--modify=annotate"))).toMatchObject({
    facts: { pages: 3 },
  });
});

describe.each(ways)("a PDF with passwords, encrypted by %s", (_, how) => {
  test.each([
    ["the reader’s", true],
    ["its owner’s", false],
  ])("is worked on with %s", async (_whose, isReaders) => {
    // Of the one revision that no standard has, the library reads letters beyond ASCII otherwise.
    const readers = how.includes("--force-R5") ? "the reader's" : "réader's";
    const password = isReaders ? readers : "owner's";
    const bytes = await encrypted([readers, "owner's"], ...how);
    const { pages } = await readFinishedPdf(bytes, undefined, password);
    const asked = pages.map((page) => ({ ...page, links: page.links.slice(1) }));
    const saved = await saveFinishedPdf(bytes, asked, names, password);
    expect(saved.removed).toBeGreaterThan(0);
    expect(await proveSaved(bytes, saved.bytes, asked, names, undefined, password)).toMatchObject({
      complete: true,
    });
    const file = join(folder, "saved.pdf");
    writeFileSync(file, saved.bytes);
    expect(execFileSync("qpdf", [`--password=${password}`, "--check", file], { encoding: "utf8" })).toContain(
      "R = ",
    );
    for (const other of ["", "another's", "reader's"])
      await expect(readFinishedPdf(bytes, undefined, other)).rejects.toMatchObject({ code: "password" });
  });
});

test("whoever knows the owner’s password may change what is forbidden to others", async () => {
  for (const how of [["128", "--use-aes=y"], ["256"]]) {
    const bytes = await encrypted(["", "owner's"], ...how, "--modify=none");
    expect(await readFinishedPdf(bytes, undefined, "owner's")).toMatchObject({ facts: { pages: 3 } });
  }
});

// RFC 6229, 2: key 0102030405, the first 16 bytes of its stream.
test("RC4 gives the stream of its test vectors", () => {
  const stream = rc4(Uint8Array.of(1, 2, 3, 4, 5), new Uint8Array(16));
  expect(bytesToHex(stream)).toBe("b2396305f03dc027ccc3524a0a1118a8");
});

test("one that is damaged is read, or refused with a word", async () => {
  for (const how of [["128", "--use-aes=y"], ["256"]]) {
    const whole = await encrypted(["", "owner's"], ...how);
    const from = Buffer.from(whole).lastIndexOf("/CFM");
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: -80, max: 500 }), fc.nat(255)), { minLength: 1, maxLength: 6 }),
        async (flips) => {
          const bytes = whole.slice();
          for (const [at, value] of flips) if (from + at < bytes.length) bytes[from + at] = value;
          await readFinishedPdf(bytes).catch((error: unknown) => expect(error).toBeInstanceOf(FinishedError));
        },
      ),
      { numRuns: 60, seed: 7 },
    );
  }
});
