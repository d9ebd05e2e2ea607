import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { browserLaunch } from "../launch/browser.mjs";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";

/** Vennet in a folder of its own, and a page of a browser in which an author is signed in, while some work lasts. */
export async function withPage(work) {
  const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
  const processes = new Processes();
  let browser;
  try {
    const { address, environment } = await startServices(processes, folder, await freePort());
    browser = await chromium.launch(browserLaunch);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: address });
    await page.request.post("/api/accounts", {
      data: { name: "Pell Arrandine", email: "bench@authors.example", password: "a long password" },
    });
    await work({ page, browser, environment });
  } finally {
    await browser?.close();
    await processes.endAll();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Brings a manuscript in. @param bytes Markdown, or a folder of it in a zip @returns the id of the book that it becomes */
export async function bringIn(page, bytes, isFolder = false) {
  const buffer = Buffer.from(bytes);
  const file = isFolder
    ? { name: "book.zip", mimeType: "application/zip", buffer }
    : { name: "book.md", mimeType: "text/markdown", buffer };
  const { id } = await (
    await page.request.post("/api/books/import", { multipart: { manuscript: file } })
  ).json();
  await jobDone(page, id);
  return (await (await page.request.get(`/api/jobs/${id}/import`)).json()).book.id;
}

/** The events of a job end when it has. */
export async function jobDone(page, id) {
  await page.request.get(`/api/jobs/${id}/events`, { timeout: 300_000 });
}
