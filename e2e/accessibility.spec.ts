import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { readFileSync, mkdtempSync, writeFileSync, mkdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { unzipSync } from "fflate";
import { expect, openDemo, selectWords, test, text } from "./fixtures";

// WCAG 2.2 at level AA, by axe-core's rules for it.
const rules = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page }).withTags(rules).analyze();
  return found.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(" ")).join("; ")}`);
}

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(`on ${colorScheme} paper`, () => {
    test.use({ colorScheme });

    test("no main view has a violation", async ({ page, quiet }) => {
      quiet.push("401");
      await page.goto("/sign-in");
      await expect(page.getByRole("button", { name: "Open the demo book" })).toBeVisible();
      expect.soft(await violations(page)).toEqual([]);
      const bookId = await openDemo(page);
      await page.goto("/");
      await page.getByRole("button", { name: "Bring in a manuscript" }).click();
      expect.soft(await violations(page)).toEqual([]);

      await page.goto(`/books/${bookId}/write`);
      await text(page).locator("a").first().click();
      expect.soft(await violations(page)).toEqual([]);
      await selectWords(page, "a walker with good boots");
      await page.keyboard.press("Control+k");
      await page.keyboard.type("tides.hesterley.example");
      expect.soft(await violations(page)).toEqual([]);
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "Keys" }).click();
      expect.soft(await violations(page)).toEqual([]);

      await page.goto(`/books/${bookId}/checks`);
      await page.getByRole("button", { name: "Ask all addresses" }).click();
      await expect(page.getByRole("progressbar")).toBeVisible();
      expect.soft(await violations(page)).toEqual([]);
      await expect(page.getByText("The last run asked")).toBeVisible({ timeout: 30_000 });

      await page.goto(`/books/${bookId}/export`);
      await page.getByRole("button", { name: "Export EPUB" }).click();
      await page.getByRole("link", { name: "Link proof" }).first().click();
      await expect(page.getByText("links intact")).toBeVisible();
      expect.soft(await violations(page)).toEqual([]);
      await page.getByRole("link", { name: "All exports" }).click();
      await expect(page.getByRole("link", { name: "Link proof" }).first()).toBeVisible();
      expect.soft(await violations(page)).toEqual([]);
    });
  });
}

test("every page of the exported e-book is free of violations", async ({ page, quiet }) => {
  // axe asks for the style sheet by script, which pages opened from disk may not do.
  quiet.push("style.css", "ERR_FAILED");
  const bookId = await openDemo(page);
  const job = (await (
    await page.request.post(`/api/books/${bookId}/exports`, { data: { format: "epub" } })
  ).json()) as { id: string };
  await page.request.get(`/api/jobs/${job.id}/events`);
  const [newest] = (await (await page.request.get(`/api/books/${bookId}/exports`)).json()) as {
    id: string;
  }[];
  const bytes = await (await page.request.get(`/api/books/${bookId}/exports/${newest!.id}/file`)).body();
  const folder = mkdtempSync(join(tmpdir(), "vennet-epub-"));
  const files = unzipSync(bytes);
  for (const [name, content] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), content);
  }
  const pages = Object.keys(files).filter((name) => name.endsWith(".xhtml"));
  expect(pages.length).toBeGreaterThan(8);
  for (const name of pages) {
    expect(readFileSync(join(folder, name), "utf8")).toContain('xml:lang="en"');
    await page.goto(pathToFileURL(join(folder, name)).href);
    // E-readers, not pages, give the regions that axe's best practices ask for.
    const { violations: found } = await new AxeBuilder({ page }).withTags(rules.slice(0, 5)).analyze();
    expect([name, found.map(({ id }) => id)]).toEqual([name, []]);
  }
});
