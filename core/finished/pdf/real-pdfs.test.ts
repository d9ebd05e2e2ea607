import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { afterAll, expect, test } from "@jest/globals";
import { getDocument, VerbosityLevel } from "../../pdf/pdf-js.ts";
import { topOfPage, type PdfLink, type PdfPage } from "./pdf-page.ts";
import { proveSaved } from "./prove-saved.ts";
import { readFinishedPdf } from "./read-finished.ts";
import { saveFinishedPdf } from "./save-finished.ts";

// PDFs that this project did not write, of several producers: they lie in packages of Debian, and are fetched without
// being installed. What is read is compared with pdf.js, what is saved with qpdf and poppler, before and after.

const packages = ["debmake-doc", "graphviz-doc", "coco-doc", "lua-doc"];
const folder = mkdtempSync(join(tmpdir(), "vennet-pdfs-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function fetched(): string[] | null {
  try {
    execFileSync("apt-get", ["download", ...packages], { cwd: folder, stdio: "ignore", timeout: 120_000 });
  } catch {
    process.emitWarning("The packages with PDFs could not be fetched: their test is left out.");
    return null;
  }
  for (const name of readdirSync(folder).filter((one) => one.endsWith(".deb")))
    execFileSync("dpkg", ["-x", name, "out"], { cwd: folder });
  const paths = readdirSync(join(folder, "out"), { recursive: true, encoding: "utf8" });
  // Of one book in many languages one does.
  return paths.filter((path) => /\.pdf(\.gz)?$/.test(path) && !/debmake-doc\.(?!ja)/.test(path)).slice(0, 24);
}

const paths = fetched();
const names = { files: new Map<string, string>(), places: new Map<string, string>() };
const text = (file: string): string =>
  spawnSync("pdftotext", ["-layout", file, "-"], { maxBuffer: 1e9 }).stdout.toString();

/** A page as poppler draws it, small; on it nothing was framed. */
const picture = (file: string, page: number): Buffer | null => {
  const at = String(page);
  const made = spawnSync("pdftoppm", ["-r", "30", "-f", at, "-l", at, file], { maxBuffer: 1e8 });
  return made.status === 0 ? made.stdout : null;
};

/** The links of a file as pdf.js counts them. */
async function linksByPdfJs(bytes: Uint8Array): Promise<number> {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: VerbosityLevel.ERRORS })
    .promise;
  let count = 0;
  for (let number = 1; number <= document.numPages; number++) {
    const annotations = (await (await document.getPage(number)).getAnnotations()) as { subtype: string }[];
    count += annotations.filter(({ subtype }) => subtype === "Link").length;
  }
  await document.loadingTask.destroy();
  return count;
}

/** Every third link described, every fifth led elsewhere, every seventh taken out, and a new one on every third page. */
function edited(pages: readonly PdfPage[]): PdfPage[] {
  let i = 0;
  return pages.map((page) => {
    const links = page.links.flatMap((link): PdfLink[] => {
      i++;
      if (i % 7 === 0) return [];
      if (i % 5 === 0)
        return [{ ...link, destination: { kind: "web", address: "https://tides.example/é?a=(1)" } }];
      if (i % 11 === 0) return [{ ...link, destination: { kind: "place", target: topOfPage(1) } }];
      if (i % 13 === 0) return [{ ...link, isInStructure: true }];
      return [i % 3 === 0 ? { ...link, description: `Tide tables “Ü” ${i}` } : link];
    });
    const [left, low] = page.box;
    const fresh: PdfLink = {
      id: `new${page.number}`,
      from: null,
      words: "",
      areas: [[left + 20, low + 20, left + 80, low + 40]],
      destination: { kind: "place", target: topOfPage(1) },
      description: "To the front",
      frame: { line: "dashed", thickness: 1, colour: "#aa0000" },
      isInStructure: true,
    };
    return { ...page, links: page.number % 3 === 1 ? [...links, fresh] : links };
  });
}

(paths ? test : test.skip)(
  "every link of real PDFs is read, and what is saved is what was asked, and nothing else",
  async () => {
    const file = join(folder, "saved.pdf");
    let links = 0;
    let compared = 0;
    const wrong: unknown[] = [];
    for (const path of paths!) {
      const packed = readFileSync(join(folder, "out", path));
      const bytes = new Uint8Array(path.endsWith(".gz") ? gunzipSync(packed) : packed);
      const { facts, pages } = await readFinishedPdf(bytes);
      const count = pages.reduce((sum, page) => sum + page.links.length + page.untouched.length, 0);
      links += count;
      expect([path, count]).toEqual([path, await linksByPdfJs(bytes)]);
      const asked = edited(pages);
      const saved = await saveFinishedPdf(bytes, asked, names);
      const proof = await proveSaved(bytes, saved.bytes, asked, names);
      if (!proof.complete)
        wrong.push([
          path,
          proof.faults,
          proof.extra,
          proof.rows.filter(({ verdict }) => verdict !== "intact"),
        ]);
      const plain = asked.find(({ number }) => number % 3 !== 1 && number > 1)?.number ?? null;
      writeFileSync(file, bytes);
      const before = {
        check: spawnSync("qpdf", ["--check", file], { encoding: "utf8" }),
        text: text(file),
        picture: plain && picture(file, plain),
      };
      writeFileSync(file, saved.bytes);
      // What qpdf finds no table in is told, and whole when it is saved; all else is as sound as it was.
      const isBroken = /xref not found/.test(before.check.stderr);
      expect([path, facts.hasBrokenTable]).toEqual([path, isBroken]);
      const after = spawnSync("qpdf", ["--check", file]).status;
      expect([path, after]).toEqual([path, isBroken ? 0 : before.check.status]);
      expect(text(file) === before.text).toBe(true);
      if (plain && before.picture) {
        compared++;
        expect([path, picture(file, plain)!.equals(before.picture)]).toEqual([path, true]);
      }
    }
    expect(wrong).toEqual([]);
    expect(paths!.length).toBeGreaterThanOrEqual(20);
    expect(links).toBeGreaterThan(500);
    expect(compared).toBeGreaterThan(10);
  },
);
