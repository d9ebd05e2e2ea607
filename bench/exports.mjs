import { fork } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium } from "@playwright/test";
import { importManuscript } from "@vennet/core/import/import-manuscript";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { compareLinks } from "@vennet/core/proof/compare";
import { manuscriptLinks } from "@vennet/core/proof/manuscript-links";
import { readEpub } from "@vennet/core/publish/formats/epub/read-back";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
import { writeWebPage } from "@vennet/core/publish/formats/web/web-page";
import { unzipSync, zipSync } from "fflate";
import { bookOf, longBook } from "./long-book.mjs";
import { peakMemory, peakMemoryOfTree } from "./memory.mjs";

// Books of about 50, 300 and 1,200 pages, each set as PDF, printed by Chromium, written as an e-book, and proven.

const seconds = (ms) => `${(ms / 1000).toFixed(2)} s`;
const ratio = (one, other) => (one / other).toFixed(2);

for (const count of [5, 27, 105]) {
  const file = { name: "causeways.md", bytes: new TextEncoder().encode(longBook(count)) };
  const { chapters } = await importManuscript(file, {
    fallbackTitle: "",
    baseAddress: null,
    pictureFor: () => null,
  });
  const set = await typeset(chapters);
  const printed = await print(chapters);
  const epub = eBook(chapters);
  const proof = await prove([{ documents: chapters.map(writeChapter), bytes: set.bytes }, set.again]);
  console.log(
    `A book of ${count} chapters with ${count * 100} links: ${proof.pages} pages by Vennet, ${printed.pages} by Chromium`,
  );
  console.log(
    `  PDF cold, with the start of the process: Vennet ${seconds(set.cold)}, Chromium ${seconds(printed.cold)}: ratio ${ratio(set.cold, printed.cold)} (aim: at most 1.0)`,
  );
  console.log(
    `  PDF after one edit: Vennet ${seconds(set.edited)}, Chromium again ${seconds(printed.again)}: ratio ${ratio(set.edited, printed.again)} (aim: at most 0.25)`,
  );
  console.log(
    `  peak memory: Vennet ${set.memory} MB (aim at 1,200 pages: 1,000), its proof ${proof.memory} MB; Chromium ${printed.memory} MB (its processes added up)`,
  );
  console.log(
    `  e-book: ${seconds(epub.written)}, zipping the same bytes ${seconds(epub.zipped)}: ratio ${ratio(epub.written, epub.zipped)} (aim: at most 3)`,
  );
  console.log(
    `  proof against the export: PDF ${seconds(proof.ms)} to ${seconds(set.cold)}: ratio ${ratio(proof.ms, set.cold)}; after the edit ${seconds(proof.again)} to ${seconds(set.edited)}: ratio ${ratio(proof.again, set.edited)}; e-book ${seconds(epub.proven)} to ${seconds(epub.written)}: ratio ${ratio(epub.proven, epub.written)} (aim: below 0.5)`,
  );
}

/** Sets the book in a process of its own, and again after one edit. */
async function typeset(chapters) {
  const started = performance.now();
  const child = fork(join(import.meta.dirname, "typeset-process.mjs"), {
    stdio: "inherit",
    serialization: "advanced",
  });
  child.send(chapters.map(writeChapter));
  const [{ bytes }] = await once(child, "message");
  const cold = performance.now() - started;
  const [{ ms: edited, ...again }] = await once(child, "message");
  const memory = peakMemory(child.pid);
  child.kill();
  return { bytes, cold, edited, again, memory };
}

/** Chromium prints the book's web page on the same paper, and prints it again. */
async function print(chapters) {
  const file = join(mkdtempSync(join(tmpdir(), "vennet-bench-")), "book.html");
  const html = new TextDecoder().decode(writeWebPage(bookOf(chapters)));
  const paper = "@page{size:A5;margin:20mm}body{font:10.5pt/1.55 serif;max-width:none}h1{break-before:page}";
  writeFileSync(file, html.replace("</style>", `${paper}</style>`));
  let started = performance.now();
  const server = await chromium.launchServer({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  const browser = await chromium.connect(server.wsEndpoint());
  const page = await browser.newPage();
  page.setDefaultTimeout(180_000);
  const once = async () => {
    await page.goto(pathToFileURL(file).href);
    return page.pdf({ preferCSSPageSize: true, tagged: true, outline: true });
  };
  const printed = await once();
  const cold = performance.now() - started;
  started = performance.now();
  await once();
  const again = performance.now() - started;
  const memory = peakMemoryOfTree(server.process().pid);
  await browser.close();
  await server.close();
  return { cold, again, memory, pages: (await readPdf(new Uint8Array(printed))).pages };
}

/** Writes the e-book, zips the files of it once more, and proves it. Each is the middle of five. */
function eBook(chapters) {
  const book = bookOf(chapters);
  const middle = (work) => {
    const times = Array.from({ length: 5 }, () => {
      const started = performance.now();
      work();
      return performance.now() - started;
    });
    return times.sort((a, b) => a - b)[2];
  };
  const bytes = writeEpub(book);
  const files = unzipSync(bytes);
  const written = middle(() => writeEpub(book));
  const zipped = middle(() => zipSync(files));
  const proven = middle(() => {
    const reading = readEpub(bytes);
    if (!compareLinks(manuscriptLinks(book, reading), reading).complete)
      throw new Error("The proof of the e-book is not complete.");
  });
  return { written, zipped, proven };
}

/** Reads a PDF back in a process of its own and compares it with the manuscript, and then what it became by an edit. */
async function prove(exported) {
  const child = fork(join(import.meta.dirname, "prove-process.mjs"), {
    stdio: "inherit",
    serialization: "advanced",
  });
  const proofs = [];
  for (const one of exported) {
    child.send(one);
    const [proof] = await once(child, "message");
    if (!proof.complete) throw new Error("The proof of the PDF is not complete.");
    proofs.push(proof);
  }
  const memory = peakMemory(child.pid);
  child.kill();
  const [first, again] = proofs;
  return { ...first, again: again.ms, memory };
}
