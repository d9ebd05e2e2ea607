import { fork } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium } from "@playwright/test";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { prove } from "@vennet/core/proof/prove";
import { exportOptions, formats } from "@vennet/core/publish/formats/formats";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { writeWebPage } from "@vennet/core/publish/formats/web/web-page";
import { unzipSync, zipSync } from "fflate";
import { browserLaunch } from "../launch/browser.mjs";
import { textFonts } from "../server/dist/workers/fonts.js";
import { peakMemory, peakMemoryOfTree } from "./memory.mjs";
import { seededBook } from "./seeded-book.mjs";
import { Spread } from "./spread.mjs";

// Books of about 50, 300 and 1,200 pages: set as PDF beside Chromium's print, written as an e-book beside zipping the same
// bytes, and the file of each format proven beside its writing. In each round everything takes its turn.

const rounds = 5;
const others = ["epub", "web", "markdown", "docx", "odt"];

for (const chapters of [5, 27, 105]) {
  const book = seededBook({ chapters, words: 2_700, links: 100 });
  const documents = book.chapters.map(({ doc }) => writeChapter(doc));
  const times = {};
  const take = (name, ms) => (times[name] ??= []).push(ms);
  const memory = { set: 0, proof: 0, print: 0 };
  let [pages, printedPages] = [0, 0];
  for (let round = 0; round < rounds; round++) {
    const set = await typeset(documents);
    take("pdf", set.cold);
    take("pdf edited", set.edited);
    const printed = await print(book, round === 0);
    take("print", printed.cold);
    take("print again", printed.again);
    const proof = await proveInProcess([{ documents, bytes: set.bytes }, set.again]);
    take("pdf proof", proof.ms);
    take("pdf edited proof", proof.again);
    for (const format of others) {
      const { written, zipped, proven } = await writeAndProve(book, format);
      take(format, written);
      take(`${format} proof`, proven);
      if (format === "epub") take("zip", zipped);
    }
    pages = proof.pages;
    printedPages ||= printed.pages;
    memory.set = Math.max(memory.set, set.memory);
    memory.proof = Math.max(memory.proof, proof.memory);
    memory.print = Math.max(memory.print, printed.memory);
  }
  const spreads = Object.fromEntries(Object.entries(times).map(([name, all]) => [name, new Spread(all)]));
  const beside = (what, one, name, other, aim) =>
    console.log(
      `  ${what}: ${spreads[one]}, ${name} ${spreads[other]}: ratio ${spreads[one].over(spreads[other])} (aim: at most ${aim})`,
    );
  console.log(
    `A book of ${chapters} chapters with ${chapters * 100} links: ${pages} pages by Vennet, ${printedPages} by Chromium; the middle of ${rounds} rounds, the least and the most`,
  );
  beside("PDF cold, with the start of the process", "pdf", "Chromium", "print", 0.8);
  beside("PDF after one edit", "pdf edited", "Chromium again", "print again", 0.2);
  beside("e-book", "epub", "zipping the same bytes", "zip", 1.5);
  beside("proof of the PDF", "pdf proof", "its export", "pdf", 0.5);
  beside("the same after the edit", "pdf edited proof", "its export", "pdf edited", 0.5);
  for (const format of others) beside(`proof of ${format}`, `${format} proof`, "its export", format, 0.5);
  console.log(
    `  peak memory: Vennet ${memory.set} MB (aim at 1,200 pages: 1,000), its proof ${memory.proof} MB; Chromium ${memory.print} MB (its processes added up)`,
  );
}

/** Sets the book in a process of its own, and again after one edit. */
async function typeset(documents) {
  const started = performance.now();
  const child = fork(join(import.meta.dirname, "typeset-process.mjs"), {
    stdio: "inherit",
    serialization: "advanced",
  });
  child.send(documents);
  const [{ bytes }] = await once(child, "message");
  const cold = performance.now() - started;
  const [{ ms: edited, ...again }] = await once(child, "message");
  const memory = peakMemory(child.pid);
  child.kill();
  return { bytes, cold, edited, again, memory };
}

/** Chromium prints the book's web page on the same paper, and prints it again. @param counted whether its pages are counted */
async function print(book, counted) {
  const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
  const file = join(folder, "book.html");
  const html = new TextDecoder().decode(writeWebPage(book));
  const paper =
    "@page{size:A5;margin:20mm}body{font:10.5pt/1.55 serif;text-align:justify;hyphens:auto;max-width:none}h1{break-before:page}";
  writeFileSync(file, html.replace("</style>", `${paper}</style>`));
  let started = performance.now();
  const server = await chromium.launchServer(browserLaunch);
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
  rmSync(folder, { recursive: true });
  return { cold, again, memory, pages: counted ? (await readPdf(new Uint8Array(printed))).pages : 0 };
}

/** Writes the book in a format other than PDF and proves the file; where that is a zip of ours, its files are zipped once more. */
async function writeAndProve(book, format) {
  const options = exportOptions({ format });
  let started = performance.now();
  const lap = () => {
    const ms = performance.now() - started;
    started = performance.now();
    return ms;
  };
  const { bytes } = await formats[format].write(book, options, {
    name: "causeways",
    lastPages: null,
    textFonts,
  });
  const written = lap();
  const reading = await formats[format].readBack(bytes, () => undefined);
  const { complete } = prove(book, reading);
  const proven = lap();
  if (!complete) throw new Error(`The proof of ${format} is not complete.`);
  if (format !== "epub") return { written, proven };
  const files = unzipSync(bytes);
  lap();
  zipSync(files);
  return { written, proven, zipped: lap() };
}

/** Reads a PDF back in a process of its own and compares it with the manuscript, and then what it became by an edit. */
async function proveInProcess(exported) {
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
