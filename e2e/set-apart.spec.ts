import type { Page } from "@playwright/test";
import { expect, openOwnBook, saved, test, text } from "./fixtures";
import { violations } from "./violations";

const tool = (label: string) => ({ name: label, exact: true });

/** Presses a tool, in the row or in the menu of those that it has no room for. */
async function useTool(page: Page, label: string): Promise<void> {
  const inRow = page.getByRole("button", tool(label));
  if (await inRow.isVisible()) return inRow.click();
  await page.getByRole("button", { name: "More tools" }).click();
  await page.getByRole("menuitem", { name: label }).click();
}

test("terms, tasks, verse and a formula are written, kept and checked off", async ({ page }) => {
  await openOwnBook(
    page,
    "# The Log\n\nEbb\n\nBoots\n\nThe bells come in\n\nBare for <math><msqrt><mi>h</mi></msqrt></math> hours.",
  );
  const sheet = text(page);
  await expect(sheet.locator("math msqrt")).toHaveText("h");

  await sheet.getByText("Ebb").click();
  await useTool(page, "Terms and meanings");
  await page.keyboard.type("going out");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Slack");
  await page.keyboard.press("Enter");
  await page.keyboard.type("neither");
  await expect(sheet.locator("dt")).toHaveText(["Ebb", "Slack"]);
  await expect(sheet.locator("dd")).toHaveText(["going out", "neither"]);

  await sheet.getByText("Boots").click();
  await useTool(page, "Task list");
  const here = page.getByRole("group", { name: "This item is" });
  await expect(here.getByRole("button", tool("To do"))).toHaveAttribute("aria-pressed", "true");
  const task = sheet.locator("li");
  // On the sign, which stands before the words.
  await task.click({ position: { x: -12, y: 12 }, force: true });
  await expect(task).toHaveAttribute("data-done", "true");
  await expect(here.getByRole("button", tool("Done"))).toHaveAttribute("aria-pressed", "true");

  await sheet.getByText("The bells").click();
  await useTool(page, "Quotation");
  await page.getByRole("group", { name: "Set off as" }).getByRole("button", tool("Verse")).click();
  await expect(sheet.locator("blockquote")).toHaveAttribute("data-part", "verse");
  expect(await violations(page)).toEqual([]);

  await saved(page);
  await page.reload();
  await expect(text(page).locator("dt")).toHaveText(["Ebb", "Slack"]);
  await expect(text(page).locator("li")).toHaveAttribute("data-done", "true");
  await expect(text(page).locator("blockquote")).toHaveAttribute("data-part", "verse");
});
