import AxeBuilder from "@axe-core/playwright";
import { expect, openOwnBook, saved, selectWords, test, text } from "./fixtures";

test("a book from right to left is written so, and its PDF read and walked so", async ({ page }) => {
  const bookId = await openOwnBook(
    page,
    "# שביל\n\nהשביל פתוח בזמן השפל; קראו את [טבלת הגאות](https://tides.hesterley.example/) לפני ההליכה.\n\nAn English paragraph stands here.",
  );
  // Its letters told the language; the text says so to spelling checkers and screen readers.
  await expect(text(page)).toHaveAttribute("lang", "he");
  await expect(text(page)).toHaveAttribute("dir", "rtl");
  const english = text(page).getByText("An English paragraph");
  await expect(english).toHaveAttribute("dir", "ltr");
  await expect(text(page).getByText("השביל פתוח")).not.toHaveAttribute("dir");
  // Typing turns a paragraph round as soon as its letters do.
  await english.click();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("שלום");
  await expect(text(page).locator("[dir=ltr]")).toHaveCount(0);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(english).toHaveAttribute("dir", "ltr");
  await saved(page);

  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("button", { name: "Export PDF" }).click();
  await expect(page.getByText("All 1 link intact")).toBeVisible();
  await page.goto(`/books/${bookId}/read`);
  await page.getByRole("button", { name: "Walk the links" }).click();
  // The list of contents has a link too.
  await page.getByRole("button", { name: "Walk", exact: true }).click();
  await expect(page.getByText("2 of 2 links walked, all as intended")).toBeVisible();
});

test("words are said to be in another language, and no more", async ({ page }) => {
  await openOwnBook(page, "# Mottos\n\nThe motto is à marée basse, they say.");
  await selectWords(page, "à marée basse");
  const tool = page.getByRole("button", { name: "In another language" });
  await tool.click();
  const field = page.getByLabel("These words are in (the book is in English)");
  await field.fill("french");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Write it as “fr”, “la” or “zh-Hant-TW”.")).toBeVisible();
  await field.fill("fr_ca");
  await expect(page.getByText("Canadian French")).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(text(page).locator("span[lang=fr-CA]")).toHaveText("à marée basse");
  await expect(tool).toHaveAttribute("aria-pressed", "true");
  await saved(page);
  await page.reload();
  await expect(text(page).locator("span[lang=fr-CA]")).toHaveText("à marée basse");
  await selectWords(page, "marée");
  await tool.click();
  await page.getByRole("button", { name: "As the book" }).click();
  await expect(text(page).locator("span[lang]").getByText("à")).toHaveText("à ");
  await expect(text(page).locator("span[lang]")).toHaveCount(2);
});

test("what an export changes is told before it, and its place is one press away", async ({ page }) => {
  const bookId = await openOwnBook(
    page,
    "# Signs\n\nA letter \u{10570} that no font has, and ![](sound.png) gone.",
  );
  await page.goto(`/books/${bookId}/export`);
  await expect(page.getByText("2 things go out changed")).toBeVisible();
  await expect(page.getByText(/The picture “sound.png” is not in the book/)).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  const letter = page.getByRole("listitem").filter({ hasText: "No font of the PDF has a shape" });
  await letter.getByRole("link", { name: "Signs" }).click();
  await expect(text(page)).toBeFocused();
  await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toBe("\u{10570}");
});
