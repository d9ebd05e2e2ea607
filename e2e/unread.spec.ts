import { expect, openOwnBook, saved, test, text } from "./fixtures";

const markdown = "# Crossing\n\n## Refuges\n\nThe fifth post is white.\n";
const unread = "Some of what this page shows could not be read.";

test("what a page asks for beside its text and does not get is said, and can be asked for again", async ({
  page,
  quiet,
}) => {
  quiet.push("500");
  const bookId = await openOwnBook(page, markdown);
  await page.route("**/acceptances", (route) =>
    route.fulfill({ status: 500, json: { code: "internal", message: "The tide is in." } }),
  );
  await page.goto(`/books/${bookId}/write`);
  await expect(text(page)).toContainText("white");
  const notice = page.getByRole("alert").filter({ hasText: unread });
  await expect(notice).toContainText("The tide is in.");
  await page.unrouteAll();
  await notice.getByRole("button", { name: "Try again" }).click();
  await expect(notice).toBeHidden();
});

test("what a page says in its place is not said twice, and comes by itself when the server is back", async ({
  page,
  quiet,
}) => {
  quiet.push("503");
  const bookId = await openOwnBook(page, markdown);
  await page.route("**/api/**/steps", (route) =>
    route.fulfill({ status: 503, json: { code: "away", message: "The database does not answer." } }),
  );
  await page.goto(`/books/${bookId}/links/steps`);
  await expect(page.getByRole("alert")).toHaveText(/^The database does not answer\./);
  await page.unrouteAll();
  await expect(page.getByText("What changes many links at once is kept here")).toBeVisible();
  await expect(page.getByRole("alert")).toBeHidden();
});

test("a press that is refused, and that nothing else tells of, is said at the foot of the page", async ({
  page,
  quiet,
}) => {
  quiet.push("500", "The tide is in.");
  await openOwnBook(page, markdown);
  await page.route("**/api/session", (route) =>
    route.request().method() === "DELETE"
      ? route.fulfill({ status: 500, json: { code: "internal", message: "The tide is in." } })
      : route.continue(),
  );
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page.getByRole("status").filter({ hasText: "The tide is in." })).toBeVisible();
});

test("whoever was signed out in another window is told, signs in, and goes on where they wrote", async ({
  page,
  quiet,
}) => {
  quiet.push("401");
  await openOwnBook(page, markdown);
  const { email } = (await (await page.request.get("/api/session")).json()) as { email: string };
  const there = page.url();
  await text(page).getByText("The fifth post is white.").click();
  await page.context().clearCookies();
  await page.keyboard.press("End");
  await page.keyboard.insertText(" Wade.");
  await expect(page.getByRole("alert")).toContainText("You are signed out, perhaps in another window.");
  await page.getByRole("alert").getByRole("link", { name: "Sign in" }).click();
  await page.getByLabel("Email address").fill(email);
  await page.getByLabel("Password").fill("a long password");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(there);
  await expect(text(page)).toContainText("The fifth post is white. Wade.");
  await saved(page);
  await expect(page.getByRole("alert")).toBeHidden();

  await page.context().clearCookies();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/\/sign-in$/);
});
