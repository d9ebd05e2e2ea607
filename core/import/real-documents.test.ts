import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { afterAll, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { bring } from "../test/brought.ts";

// Documents that this project did not write: they lie in packages of Debian, and are fetched without being installed.

const packages = ["lib3mf-doc", "libdigidoc-doc", "coco-doc", "debmake-doc"];
const folder = mkdtempSync(join(tmpdir(), "vennet-documents-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The paths of all files in the packages; null on a machine that cannot fetch them. */
function fetched(): string[] | null {
  try {
    execFileSync("apt-get", ["download", ...packages], { cwd: folder, stdio: "ignore", timeout: 120_000 });
  } catch {
    process.emitWarning("The packages with documents could not be fetched: their test is left out.");
    return null;
  }
  for (const name of readdirSync(folder).filter((one) => one.endsWith(".deb")))
    execFileSync("dpkg", ["-x", name, "out"], { cwd: folder });
  return readdirSync(join(folder, "out"), { recursive: true, encoding: "utf8" });
}

const paths = fetched();
const read = (path: string): Uint8Array => {
  const bytes = readFileSync(join(folder, "out", path));
  return new Uint8Array(path.endsWith(".gz") ? gunzipSync(bytes) : bytes);
};
/** What may become of a link of theirs besides arriving as it was. */
const known =
  /^(Links that a book cannot hold|Links without words|Ways back from notes|Links to (files|places) that )/;

(paths ? test : test.skip)(
  "every link of real text documents, e-books and manuals arrives, or is told with its reason",
  async () => {
    const documents = paths!
      .filter((path) => /\.(docx|odt)(\.gz)?$|\.(de|en|ja)\.epub$/.test(path))
      .map(read);
    for (const manual of ["libdigidoc/html", "debmake-doc/html"]) {
      const pages = paths!.filter((path) => path.includes(manual) && /\.(html|png|css|js)$/.test(path));
      documents.push(zipSync(Object.fromEntries(pages.map((path) => [path, read(path)])), { level: 0 }));
    }
    const wrong: unknown[] = [];
    let intact = 0;
    for (const bytes of documents) {
      const { arrival } = await bring(bytes);
      intact += arrival!.counts.intact;
      for (const { verdict, sort, words, href, reason } of arrival!.links)
        if (verdict === "lost" || verdict === "extra" || (verdict !== "intact" && !known.test(sort)))
          wrong.push([verdict, sort, words, href, reason]);
    }
    expect(wrong).toEqual([]);
    expect(documents.length).toBeGreaterThan(8);
    expect(intact).toBeGreaterThan(4_000);
  },
  120_000,
);
