import type { Page } from "@playwright/test";
import { expect, test } from "./fixtures";
import { violations } from "./violations";

/** Signs an author up who has no book. */
async function signUp(page: Page): Promise<void> {
  await page.goto("about:blank");
  const email = `pell-${Math.random().toString(36).slice(2)}@authors.example`;
  await page.request.post("/api/accounts", {
    data: { name: "Pell Arrandine", email, password: "a long password" },
  });
}

test("an account is made, a manuscript brought in with what was left out, a book begun and deleted", async ({
  page,
  quiet,
}) => {
  quiet.push("401", "400");
  await page.goto("/");
  await expect(page).toHaveURL(/sign-in/);
  await page.getByRole("button", { name: "I have no account yet" }).click();
  await page.getByLabel("Your name").fill("Pell Arrandine");
  await page.getByLabel("Email address").fill(`pell-${Math.random().toString(36).slice(2)}@authors.example`);
  await page.getByLabel("Password").fill("short");
  await page.getByRole("button", { name: "Make the account" }).click();
  await expect(page.getByText("A password has at least 10 characters.")).toBeVisible();
  await page.getByLabel("Password").fill("long enough now");
  await page.getByRole("button", { name: "Make the account" }).click();
  await expect(page.getByRole("region", { name: "Ways to begin" })).toBeVisible();

  await page.getByRole("button", { name: "Bring in a manuscript" }).click();
  await page.getByLabel(/The manuscript/).setInputFiles({
    name: "walks.md",
    mimeType: "text/markdown",
    buffer: Buffer.from("# Walks\n\n[a](https://tides.hesterley.example/) [b](javascript:alert(1)) ~~old~~"),
  });
  await page.getByRole("button", { name: "Bring it in" }).click();
  const looked = page.getByRole("region", { name: "Look it over" });
  await expect(looked).toContainText("Links that a book cannot hold");
  await looked.getByRole("button", { name: "Keep it", exact: true }).click();
  const brought = page.getByRole("region", { name: "Brought in" });
  await expect(brought).toContainText("“Walks” is on the Shelf, with 1 chapter and 1 link.");
  await brought.getByRole("button", { name: "Close" }).click();

  await page.getByRole("button", { name: "Begin a new book" }).click();
  await page.getByLabel("Title of the book").fill("Short walks");
  await page.getByRole("button", { name: "Begin", exact: true }).click();
  await expect(page.getByRole("textbox", { name: "Text of the chapter" })).toContainText("Chapter 1");
  await page.getByRole("link", { name: "Shelf" }).click();

  const row = page.getByRole("listitem").filter({ hasText: "Short walks" });
  await row.getByRole("button", { name: "Title, author, language" }).click();
  await row.getByLabel("Language").fill("german words");
  await row.getByRole("button", { name: "Save" }).click();
  await expect(row).toContainText("A language is written as");
  await row.getByLabel("Language").fill("de");
  await row.getByLabel("Title").fill("Kurze Wege");
  await row.getByRole("button", { name: "Save" }).click();
  const renamed = page.getByRole("listitem").filter({ hasText: "Kurze Wege" });
  await renamed.getByRole("button", { name: "Title, author, language" }).click();
  await renamed.getByRole("button", { name: "Delete the book" }).click();
  await expect(renamed).toHaveCount(0);
  await expect(page.getByRole("link", { name: "Walks" })).toBeVisible();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/sign-in/);
});

test("what comes to an empty Shelf from elsewhere stands on it by itself", async ({ page }) => {
  await signUp(page);
  await page.goto("/");
  await expect(page.getByRole("region", { name: "Ways to begin" })).toBeVisible();
  await page.request.post("/api/books", { data: { title: "Fog bells" } });
  await expect(page.getByRole("link", { name: "Fog bells" })).toBeVisible();
});

test("a deleted book is brought back, or goes for good", async ({ page }) => {
  await signUp(page);
  for (const title of ["Fog bells", "Short walks"])
    await page.request.post("/api/books", { data: { title } });
  await page.goto("/");
  const onShelf = page.getByRole("link", { name: "Fog bells" });
  const deleteIt = async (): Promise<void> => {
    await page.getByRole("listitem").filter({ has: onShelf }).getByRole("button", { name: "Title" }).click();
    await page.getByRole("button", { name: "Delete the book" }).click();
    await expect(onShelf).toHaveCount(0);
  };
  const said = page.getByRole("status").filter({ hasText: "was deleted" });
  const opener = page.getByRole("button", { name: "1 deleted book" });

  await deleteIt();
  await expect(said).toContainText("“Fog bells” was deleted.");
  await said.getByRole("button", { name: "Undo" }).click();
  await expect(onShelf).toBeVisible();
  await expect(opener).toHaveCount(0);

  await deleteIt();
  await opener.click();
  const deleted = page.getByRole("region", { name: "Deleted books" });
  await expect(deleted).toContainText("Pell Arrandine. Deleted");
  expect(await violations(page)).toEqual([]);
  await deleted.getByRole("button", { name: "Bring back “Fog bells”" }).click();
  await expect(onShelf).toBeVisible();
  await expect(deleted).toHaveCount(0);
  // There is nothing left to be undone.
  await expect(said).toHaveCount(0);

  await deleteIt();
  await deleted.getByRole("button", { name: "Delete “Fog bells” for good" }).click();
  await deleted.getByRole("button", { name: "Keep it" }).click();
  await deleted.getByRole("button", { name: "Delete “Fog bells” for good" }).click();
  await deleted.getByRole("button", { name: "Delete it" }).click();
  await expect(deleted).toHaveCount(0);
  await expect(said).toHaveCount(0);
  await expect(page.getByRole("link", { name: "Short walks" })).toBeVisible();
});

test("undo stays within reach however long the title of a deleted book is", async ({ page }) => {
  await signUp(page);
  const title = "Causeways".repeat(55);
  await page.request.post("/api/books", { data: { title } });
  await page.goto("/");
  await page.getByRole("button", { name: "Title, author, language" }).click();
  await page.getByRole("button", { name: "Delete the book" }).click();
  const undo = page.getByRole("status").getByRole("button", { name: "Undo" });
  await expect(undo).toBeInViewport({ ratio: 1 });
  await undo.click();
  await expect(page.getByRole("link", { name: title })).toBeVisible();
});
