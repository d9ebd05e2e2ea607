import { fork } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium } from "@playwright/test";
import { importMarkdown } from "@vennet/core/import/markdown";
import { readPdf } from "@vennet/core/proof/read-pdf";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { writeWebPage } from "@vennet/core/publish/web-page";
import { bookOf, longBook } from "./long-book.mjs";
import { peakMemory, peakMemoryOfTree } from "./memory.mjs";

/** The book as one web page on A5 paper, for Chromium to print. */
function webPage(chapters) {
  const html = new TextDecoder().decode(writeWebPage(bookOf(chapters)));
  const paper = "@page{size:A5;margin:20mm}body{font:10.5pt/1.55 serif;max-width:none}h1{break-before:page}";
  return html.replace("</style>", `${paper}</style>`);
}

const { chapters } = importMarkdown(longBook(), {
  fallbackTitle: "",
  baseAddress: null,
  pictureFor: () => null,
});
const seconds = (ms) => `${(ms / 1000).toFixed(2)} s`;

let started = performance.now();
const child = fork(join(import.meta.dirname, "typeset-process.mjs"), {
  stdio: "inherit",
  serialization: "advanced",
});
child.send(chapters.map(writeChapter));
const [{ bytes }] = await once(child, "message");
const cold = performance.now() - started;
const [{ ms: edited }] = await once(child, "message");
const memory = peakMemory(child.pid);
child.kill();

const file = join(mkdtempSync(join(tmpdir(), "vennet-bench-")), "book.html");
writeFileSync(file, webPage(chapters));
started = performance.now();
const server = await chromium.launchServer({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
});
const browser = await chromium.connect(server.wsEndpoint());
const page = await browser.newPage();
const print = async () => {
  await page.goto(pathToFileURL(file).href);
  return page.pdf({ preferCSSPageSize: true, tagged: true, outline: true });
};
const printed = await print();
const chromiumCold = performance.now() - started;
started = performance.now();
await print();
const chromiumAgain = performance.now() - started;
const chromiumMemory = peakMemoryOfTree(server.process().pid);
await browser.close();
await server.close();

const pagesOf = async (pdf) => (await readPdf(new Uint8Array(pdf))).pages;
console.log(
  `PDF of a book with 1,500 web and 1,500 inner links (${await pagesOf(bytes)} pages by Vennet, ${await pagesOf(printed)} by Chromium)`,
);
console.log(
  `  cold, with the start of the process: Vennet ${seconds(cold)}, Chromium ${seconds(chromiumCold)}: ratio ${(cold / chromiumCold).toFixed(2)} (aim: at most 1.5)`,
);
console.log(
  `  after one edit: Vennet ${seconds(edited)}, Chromium again ${seconds(chromiumAgain)}: ratio ${(edited / chromiumAgain).toFixed(2)} (aim: at most 0.33)`,
);
console.log(`  peak memory: Vennet ${memory} MB, Chromium ${chromiumMemory} MB (its processes added up)`);
