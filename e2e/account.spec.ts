import type { Page } from "@playwright/test";
import { expect, openOwnBook, test, text, vennet } from "./fixtures";
import { violations } from "./violations";

const password = "a long password";

/** Opens the newest letter of the stand-in mail that says this, and follows its link in this page. */
async function openMailed(page: Page, to: string, says: string): Promise<void> {
  const { STANDIN_WEB_PORT: port } = vennet().environment;
  let address: string | undefined;
  await expect
    .poll(async () => {
      const answer = await page.request.get(`http://127.0.0.1:${port}/.letters?to=${encodeURIComponent(to)}`);
      const letters = (await answer.json()) as { text: string }[];
      address = letters.find(({ text }) => text.includes(says))?.text.match(/http:\S+/)?.[0];
      return address;
    })
    .toBeDefined();
  await page.goto(address!);
}

const ownEmail = async (page: Page): Promise<string> =>
  ((await (await page.request.get("/api/session")).json()) as { email: string }).email;

test("an author changes name, address and password, sees where they are signed in, and leaves", async ({
  page,
  browser,
  quiet,
}) => {
  quiet.push("401", "403");
  await openOwnBook(page, "# Tides\n\nLow water.\n");
  const email = await ownEmail(page);
  // Another browser of the same author.
  const elsewhere = await browser.newPage();
  await elsewhere.request.post(`${vennet().address}/api/session`, { data: { email, password } });
  await page.goto("/");
  await page.getByRole("link", { name: "Account" }).click();
  await expect(page.getByText("(here)")).toBeVisible();
  expect(await violations(page)).toEqual([]);

  const section = (name: string) => page.getByRole("region", { name });
  await page.getByLabel("Your name").fill("Pell of the Sound");
  await page.getByRole("button", { name: "Change name" }).click();
  await expect(page.getByText("Your name is changed.")).toBeVisible();

  await section("Signed in").getByRole("button", { name: "Sign out everywhere else" }).click();
  await expect(page.getByText("You are signed in here alone now.")).toBeVisible();
  expect((await elsewhere.request.get(`${vennet().address}/api/session`)).status()).toBe(401);
  await elsewhere.close();

  const next = email.replace("author-", "moved-");
  await section("Email address").getByLabel("New email address").fill(next);
  await section("Email address").getByLabel("Your password").fill(password);
  await page.getByRole("button", { name: "Send a link there" }).click();
  await expect(page.getByText(`A link was mailed to ${next}`)).toBeVisible();
  await openMailed(page, next, "confirm it here");
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Confirm the address" }).click();
  await expect(page.getByText(`From now on you sign in as ${next}.`)).toBeVisible();
  expect(new URL(page.url()).hash).toBe("");

  await page.goto("/account");
  await section("Password").getByLabel("Password until now").fill("not it at all");
  await section("Password").getByLabel("New password").fill("four words of the sea");
  await page.getByRole("button", { name: "Change password" }).click();
  await expect(page.getByText("This is not your password.")).toBeVisible();
  await section("Password").getByLabel("Password until now").fill(password);
  await page.getByRole("button", { name: "Change password" }).click();
  await expect(page.getByText("Your password is changed.")).toBeVisible();

  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download everything" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("vennet-everything.zip");
  await page.getByRole("button", { name: "Delete the account" }).click();
  await section("Leaving").getByLabel("Your password").fill("four words of the sea");
  await page.getByRole("button", { name: "Delete account and books" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("a forgotten password is replaced by a mailed link", async ({ page, quiet }) => {
  quiet.push("401");
  await openOwnBook(page, "# Tides\n\nLow water.\n");
  const email = await ownEmail(page);
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.getByRole("button", { name: "I have forgotten my password" }).click();
  await page.getByLabel("Email address").fill(email);
  await page.getByRole("button", { name: "Send a link" }).click();
  await expect(page.getByText("is on its way there")).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await openMailed(page, email, "new password");
  expect(await violations(page)).toEqual([]);
  await page.getByLabel("New password").fill("four words of the sea");
  await page.getByRole("button", { name: "Change password" }).click();
  await expect(page.getByText("Your password is changed")).toBeVisible();
  await page.getByRole("link", { name: "To sign in" }).click();
  await page.getByLabel("Email address").fill(email);
  await page.getByLabel("Password").fill("four words of the sea");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Shelf" })).toBeVisible();
});

test("who comes to a chapter without a session signs in, and is there", async ({ page, quiet }) => {
  quiet.push("401");
  await openOwnBook(page, "# Tides\n\nLow water bares the stones.\n");
  await expect(text(page)).toContainText("Low water");
  const email = await ownEmail(page);
  const chapter = page.url();
  await page.context().clearCookies();
  await page.goto(chapter);
  await page.getByLabel("Email address").fill(email);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(text(page)).toContainText("Low water bares the stones.");
  await expect(page).toHaveURL(chapter);
});
