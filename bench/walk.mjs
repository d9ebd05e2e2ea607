import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { writeMarkdown } from "@vennet/core/publish/formats/markdown/write-markdown";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { seededBook } from "./seeded-book.mjs";

// A walk over the links of an exported PDF and e-book, each pressed in the reader as readers press it, with its pictures.

const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
const processes = new Processes();
let browser;

try {
  const { address } = await startServices(processes, folder, await freePort());
  browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: address });
  await page.request.post("/api/accounts", {
    data: { name: "Pell Arrandine", email: "bench@authors.example", password: "a long password" },
  });
  const { bytes } = writeMarkdown(seededBook({ chapters: 5, words: 3_000, links: 20 }), "book.md");
  const done = (id) => page.request.get(`/api/jobs/${id}/events`);
  const file = { name: "book.zip", mimeType: "application/zip", buffer: Buffer.from(bytes) };
  const { id } = await (
    await page.request.post("/api/books/import", { multipart: { manuscript: file } })
  ).json();
  await done(id);
  const book = (await (await page.request.get(`/api/jobs/${id}/import`)).json()).book.id;
  for (const format of ["pdf", "epub"]) {
    const job = await (await page.request.post(`/api/books/${book}/exports`, { data: { format } })).json();
    await done(job.id);
    const [{ id: made }] = (await (await page.request.get(`/api/books/${book}/exports`)).json()).filter(
      (one) => one.format === format,
    );
    await page.goto(`/books/${book}/read/${made}`);
    await page.getByRole("button", { name: "Walk the links" }).click();
    const walk = page.getByRole("button", { name: "Walk", exact: true });
    await walk.waitFor();
    const started = performance.now();
    await walk.click();
    await page.getByRole("button", { name: "Walk again" }).waitFor({ timeout: 300_000 });
    const seconds = (performance.now() - started) / 1000;
    const { walk: kept } = (await (await page.request.get(`/api/books/${book}/exports`)).json()).find(
      (one) => one.id === made,
    );
    const walked = kept?.walked ?? 0;
    console.log(
      `A walk of ${walked} links of the ${format}: ${seconds.toFixed(1)} s, ${((1000 * seconds) / walked).toFixed(0)} ms a link (aim: 10 s for 100 links)`,
    );
  }
} finally {
  await browser?.close();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
