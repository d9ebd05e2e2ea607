import { readFileSync } from "node:fs";
import { unzipSync, strFromU8 } from "fflate";
import { expect, openDemo, openOwnBook, saved, selectWords, test, text } from "./fixtures";

test("from the open book through a new link and a run to both exports, each with a complete proof", async ({
  page,
}) => {
  await openDemo(page);

  // Three words, one key, a paste, Enter.
  await selectWords(page, "under four metres");
  await page.keyboard.press("Control+k");
  const line = page.getByRole("form", { name: "Link line" });
  await line.getByLabel("Leads to").fill("https://tides.hesterley.example/depths/sound");
  await expect(line).toContainText("tides.hesterley.example");
  await page.keyboard.press("Enter");
  await expect(line).toBeHidden();
  const link = text(page).getByRole("link", { name: "under four metres" });
  await expect(link).toHaveAttribute("href", "https://tides.hesterley.example/depths/sound");
  const card = page.getByRole("button", { name: "Link “under four metres”" });
  await expect(card).toContainText("Web");
  await expect(card).toContainText("tides.hesterley.example");
  await expect(card).toContainText("Not checked");
  await saved(page);

  // The run: live, every distinct address once.
  await page.getByRole("link", { name: "Checks" }).click();
  await page.getByRole("button", { name: "Check all" }).click();
  await expect(page.getByRole("progressbar", { name: "Addresses checked" })).toBeVisible();
  await expect(page.getByText(/The last run checked 56 addresses, each once/)).toBeVisible();
  const broken = page.getByRole("article").filter({ hasText: "https://tides.hesterley.example/tables/2019" });
  await expect(broken).toContainText("Broken");
  await broken.getByRole("button", { name: "Evidence" }).click();
  await expect(broken).toContainText("GET https://tides.hesterley.example/tables/2019 → 404");
  await page
    .getByRole("group", { name: "Show" })
    .getByRole("button", { name: /broken/ })
    .click();
  await expect(page.getByRole("article")).toHaveCount(5);
  await page.getByRole("group", { name: "Show" }).getByRole("button", { name: /All/ }).click();

  // From a destination to its place in the text, where the margin says that it is alive.
  await page.getByRole("link", { name: "under four metres" }).click();
  await expect(link).toBeVisible();
  await expect(page.getByText("The page answers (200).")).toBeVisible();

  // Both exports, their proofs, and the files themselves.
  await page.getByRole("link", { name: "Export" }).click();
  for (const [format, button, ending] of [
    ["PDF", "Export PDF", "pdf"],
    ["E-book", "Export EPUB", "epub"],
  ] as const) {
    await page.getByRole("radio", { name: format }).check();
    await page.getByRole("button", { name: button }).click();
    const files = page.getByRole("listitem").filter({ hasText: `hesterley-sound.${ending}` });
    const row = files.filter({ hasText: "All 74 links intact" });
    await expect(row).toBeVisible();
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      row.getByRole("link", { name: "Download" }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`the-tidal-causeways-of-hesterley-sound.${ending}`);
    const bytes = readFileSync(await download.path());
    if (ending === "pdf") expect(bytes.subarray(0, 5).toString()).toBe("%PDF-");
    else {
      expect(strFromU8(unzipSync(bytes)["EPUB/chapter-001.xhtml"]!)).toMatch(
        /<a class="web" href="https:\/\/tides\.hesterley\.example\/depths\/sound" id="\w+">under four metres<\/a>/,
      );
    }
    await row.getByRole("link", { name: "Link proof" }).click();
    // The list of files, which says the same of each, is gone then.
    await expect(page.getByRole("heading", { name: "Link proof" })).toBeVisible();
    await expect(page.getByText("All 74 links intact")).toBeVisible();
    await expect(page.getByRole("row").filter({ hasText: "under four metres" })).toContainText("Intact");
    await page.getByRole("link", { name: "All exports" }).click();
  }

  // And back to what it was, with the words kept.
  await page.getByRole("link", { name: "Write" }).click();
  await text(page).getByRole("link", { name: "under four metres" }).click();
  await page.getByRole("button", { name: "Remove link" }).click();
  await expect(text(page)).toContainText("under four metres of sea");
  await expect(text(page).getByRole("link", { name: "under four metres" })).toHaveCount(0);
  await saved(page);
});

test("an export that loses a link says so loudly, and why", async ({ page }) => {
  const bookId = await openOwnBook(
    page,
    "# Walks\n\n[The plan](plan.pdf) and [the office](https://tides.hesterley.example/).",
  );
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("radio", { name: "E-book" }).check();
  await page.getByRole("button", { name: "Export EPUB" }).click();
  await expect(page.getByText("1 of 2 links lost or changed")).toBeVisible();
  await page.getByRole("link", { name: "Link proof" }).click();
  const row = page.getByRole("row").filter({ hasText: "The plan" });
  await expect(row).toContainText("Missing");
  await expect(row).toContainText("does not travel with the book");
  await page.getByLabel("Show only what is wrong").check();
  await expect(page.getByRole("row")).toHaveCount(2);
});
