import AxeBuilder from "@axe-core/playwright";
import { readFileSync, mkdtempSync, writeFileSync, mkdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { unzipSync } from "fflate";
import { expect, openDemo, selectWords, test, text } from "./fixtures";
import { rules, violations } from "./violations";

// Looking over a page takes a second or two, and there are many.

test("no view of writing has a violation", async ({ page, quiet }) => {
  quiet.push("401");
  await page.goto("/sign-in");
  await expect(page.getByRole("button", { name: "Open the demo book" })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  const bookId = await openDemo(page);
  await page.goto("/");
  await page.getByRole("button", { name: "Bring in a manuscript" }).click();
  expect.soft(await violations(page)).toEqual([]);

  await page.goto(`/books/${bookId}/bring-in`);
  await expect(page.getByRole("heading", { name: "Bring in a manuscript" })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);

  await page.goto(`/books/${bookId}/write`);
  await text(page).locator("a").first().click();
  expect.soft(await violations(page)).toEqual([]);
  await selectWords(page, "every island");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("tides.hesterley.example");
  expect.soft(await violations(page)).toEqual([]);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("mailto:wardens@causeways.example?subject=Crossing");
  await expect(page.getByLabel("Subject")).toHaveValue("Crossing");
  expect.soft(await violations(page)).toEqual([]);
  await page.keyboard.press("Escape");
  await text(page).locator("a").nth(1).click();
  await page.getByRole("button", { name: "Link every mention" }).click();
  await expect(page.getByRole("heading", { name: "Link every mention" })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("link", { name: "The Monk's Path" }).click();
  await text(page)
    .locator(".picture img")
    .click({ position: { x: 5, y: 5 } });
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: /^Hotspots: 3/ }).click();
  await expect(page.locator("canvas").first()).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("link", { name: "Versions" }).click();
  await expect(page.getByRole("heading", { name: /link/ })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.goto(`/books/${bookId}/write`);
  await selectWords(page, "every island");
  await page.keyboard.press("Alt+a");
  await page.getByRole("radio", { name: "Places" }).click();
  await page.getByRole("button", { name: "Change the anchor “every island”" }).click();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Delete anchor" }).click();
  await page.getByRole("button", { name: "Keys" }).click();
  expect.soft(await violations(page)).toEqual([]);
});

test("no view of what follows from places has a violation", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("link", { name: "Questions walkers ask" }).click();
  await expect(text(page).locator(".signposts li").first()).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await text(page).locator(".signposts-heading").first().click();
  await expect(page.getByRole("group", { name: "Signpost list" })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await text(page).locator(".cross-reference").first().click();
  await expect(page.getByLabel("Says")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await selectWords(page, "on the quay");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("crossing");
  await expect(page.getByRole("form", { name: "Cross-reference" }).getByRole("option").first()).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
});

test("no view of links has a violation", async ({ page, quiet }) => {
  quiet.push("401");
  const bookId = await openDemo(page);
  await page.goto(`/books/${bookId}/links`);
  await expect(page.getByRole("row").nth(5)).toBeVisible();
  await page
    .getByRole("button", { name: /^Edit “/ })
    .first()
    .click();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByLabel(/^Choose all/).check();
  await page.getByRole("button", { name: "Describe" }).click();
  await page.getByLabel(/^Description for all/).fill("Words");
  await expect(page.getByRole("button", { name: /^Change \d+ links/ })).toBeEnabled();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("checkbox", { name: "By destination" }).check();
  await expect(page.getByRole("region", { name: "Links by destination" })).toContainText(
    "tides.hesterley.example",
  );
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "Files", exact: true }).click();
  await page.getByRole("button", { name: "Preview" }).first().click();
  await expect(page.getByText("Whistle")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "Match codes to files" }).click();
  await page.getByLabel("Codes as they stand in the text").fill("R1 R2");
  await expect(page.getByRole("button", { name: /^Link \d codes/ })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "Link looks" }).click();
  await page
    .getByRole("group", { name: "Look of web links" })
    .getByLabel(/^Underline/)
    .selectOption("none");
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "Numbers and notes" }).click();
  await expect(page.getByLabel("Headings are numbered")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "What was done" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "good boots" })).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
});

test("no view of checks and exports has a violation", async ({ page, quiet }) => {
  quiet.push("Blocked script execution");
  const bookId = await openDemo(page);
  await page.goto(`/books/${bookId}/checks`);
  await page.getByRole("button", { name: "Check all" }).click();
  await expect(page.getByRole("progressbar")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await expect(page.getByText("The last run checked")).toBeVisible();
  await page.getByRole("link", { name: "Findings" }).click();
  await expect(page.getByRole("link", { name: "Go there" }).first()).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "Health" }).click();
  await expect(page.getByRole("figure")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.goto(`/api/books/${bookId}/report?as=page`);
  expect.soft(await violations(page)).toEqual([]);

  await page.goto(`/books/${bookId}/export`);
  await expect(page.getByRole("region", { name: "What becomes of the links" })).toContainText("Web");
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("radio", { name: "E-book" }).check();
  await page.getByRole("button", { name: "Export EPUB" }).click();
  await page.getByRole("link", { name: "Link proof" }).first().click();
  await expect(page.getByText("links intact")).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
  await page.getByRole("link", { name: "All exports" }).click();
  await expect(page.getByRole("link", { name: "Link proof" }).first()).toBeVisible();
  expect.soft(await violations(page)).toEqual([]);
});

for (const [what, options, ending] of [
  ["e-book", { format: "epub" }, ".xhtml"],
  ["web page", { format: "web" }, ".html"],
  ["folder of web pages", { format: "web", pages: "chapters" }, ".html"],
] as const) {
  test(`every page of the exported ${what} is free of violations`, async ({ page, quiet }) => {
    // axe asks for the style sheet by script, which pages opened from disk may not do.
    quiet.push("style.css", "ERR_FAILED");
    const bookId = await openDemo(page);
    const job = (await (
      await page.request.post(`/api/books/${bookId}/exports`, { data: options })
    ).json()) as { id: string };
    await page.request.get(`/api/jobs/${job.id}/events`);
    const [newest] = (await (await page.request.get(`/api/books/${bookId}/exports`)).json()) as {
      id: string;
    }[];
    const bytes = await (await page.request.get(`/api/books/${bookId}/exports/${newest!.id}/file`)).body();
    const folder = mkdtempSync(join(tmpdir(), "vennet-export-"));
    const isZip = bytes.subarray(0, 2).toString() === "PK";
    const files = isZip ? unzipSync(bytes) : { "page.html": new Uint8Array(bytes) };
    for (const [name, content] of Object.entries(files)) {
      mkdirSync(dirname(join(folder, name)), { recursive: true });
      writeFileSync(join(folder, name), content);
    }
    const pages = Object.keys(files).filter((name) => name.endsWith(ending));
    expect(pages.length).toBeGreaterThan(isZip ? 8 : 0);
    // E-readers, not pages of an e-book, give the regions that axe's best practices ask for.
    const tags = ending === ".xhtml" ? rules.slice(0, 5) : rules;
    for (const name of pages) {
      expect(readFileSync(join(folder, name), "utf8")).toContain('lang="en"');
      await page.goto(pathToFileURL(join(folder, name)).href);
      const { violations: found } = await new AxeBuilder({ page }).withTags(tags).analyze();
      expect.soft([name, found.map(({ id, nodes }) => [id, nodes[0]!.html])]).toEqual([name, []]);
    }
  });
}
