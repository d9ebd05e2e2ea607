import { expect, openOwnBook, saved, test, text } from "./fixtures";
import { violations } from "./violations";

test("a part is added among the chapters, has no number, and chapters behind it stand under it", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, "# Tides\n\nLow water is at nine.");
  const chapters = page.getByRole("navigation", { name: "Chapters" });
  await chapters.getByRole("button", { name: "Add a part" }).click();
  await expect(page).toHaveURL(/\/write\//);
  await expect(chapters.getByRole("link", { name: /Part 1 Part, 0 links/ })).toBeVisible();
  await text(page).getByRole("heading", { name: "Part 1" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(", the islands");
  await saved(page);
  await chapters.getByRole("button", { name: "Add a chapter" }).click();
  await expect(chapters.getByRole("link", { name: /^2 ?Chapter 2/ })).toBeVisible();
  // The list tells of it before its text is open.
  await expect(text(page).getByRole("heading", { name: "Chapter 2" })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  const listed = (await (await page.request.get(`/api/books/${bookId}/chapters`)).json()) as {
    title: string;
    role: string;
  }[];
  expect(listed.map(({ title, role }) => [title, role])).toEqual([
    ["Tides", "chapter"],
    ["Part 1, the islands", "part"],
    ["Chapter 2", "chapter"],
  ]);
});

test("a chapter is left without a number, those behind it are counted anew, and it can be taken back", async ({
  page,
}) => {
  await openOwnBook(page, "# Before you go\n\nAsk.\n\n# Tides\n\nLow water is at nine.");
  const chapters = page.getByRole("navigation", { name: "Chapters" });
  await expect(chapters.getByRole("link", { name: /^2 ?Tides/ })).toBeVisible();
  const number = chapters.getByRole("button", { name: "Number “Before you go”" });
  await number.focus();
  await page.keyboard.press("Enter");
  await expect(chapters.getByRole("link", { name: /^Before you go/ })).toBeVisible();
  await expect(chapters.getByRole("link", { name: /^1 ?Tides/ })).toBeVisible();
  await expect(number).toHaveAttribute("aria-pressed", "false");
  await page.keyboard.press("Control+z");
  await expect(chapters.getByRole("link", { name: /^1 ?Before you go/ })).toBeVisible();
  await expect(number).toHaveAttribute("aria-pressed", "true");
});
