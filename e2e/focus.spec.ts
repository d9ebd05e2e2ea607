import { expect, openOwnBook, test } from "./fixtures";

// WCAG 2.2 SC 2.4.3 and 2.4.7: whoever works by keys goes on where they are.
test("the focus goes to what is nearest when a button has nothing left to do", async ({ page }) => {
  const bookId = await openOwnBook(page, "# Crossing\n\nThe fifth post is white.\n");
  await page.goto(`/books/${bookId}/links/numbers`);
  const button = (name: string) => page.getByRole("button", { name, exact: true });
  const counted = page.getByLabel("Notes are counted");
  await counted.selectOption("book");
  await button("Cancel").focus();
  await page.keyboard.press("Enter");
  await expect(counted).toHaveValue("chapter");
  await expect(button("Default")).toBeFocused();

  await counted.selectOption("book");
  await button("Save").focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Saved: the book counts so now.")).toBeVisible();
  await expect(button("Default")).toBeFocused();
});

test("a button that waits long for its work has the focus again when it is done", async ({ page, quiet }) => {
  quiet.push("400");
  const bookId = await openOwnBook(page, "# Crossing\n\nThe fifth post is white.\n");
  await page.goto(`/books/${bookId}/links/numbers`);
  const button = (name: string) => page.getByRole("button", { name, exact: true });
  let answer = (): void => undefined;
  const mayAnswer = new Promise<void>((resolve) => (answer = resolve));
  await page.route(`**/api/books/${bookId}`, async (route) => {
    if (route.request().method() === "PATCH") await mayAnswer;
    await route.fulfill({ status: 400, json: { code: "invalid", message: "The tide is in." } });
  });
  await page.getByLabel("Notes are counted").selectOption("book");
  await button("Save").focus();
  await page.keyboard.press("Enter");
  await expect(button("Saving …")).toBeDisabled();
  await expect(button("Cancel")).toBeFocused();
  answer();
  await expect(page.getByText("The tide is in.")).toBeVisible();
  await expect(button("Save")).toBeFocused();
});
