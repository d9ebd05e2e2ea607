import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { liveWithDemo } from "../demo/live.mjs";
import { loadDemo } from "../demo/load.mjs";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { expect, openOwnBook, selectWords, test, text } from "./fixtures";
import { violations } from "./violations";

test("an empty Shelf says what Vennet does and offers three ways to begin", async ({ page }) => {
  const email = `author-${Math.random().toString(36).slice(2)}@authors.example`;
  await page.request.post("/api/accounts", { data: { name: "Pell", email, password: "a long password" } });
  await page.goto("/");
  const ways = page.getByRole("region", { name: "Ways to begin" });
  await expect(ways.getByRole("listitem")).toHaveCount(3);
  expect(await violations(page)).toEqual([]);
  await ways.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByLabel(/^The manuscript/)).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await ways.getByRole("button", { name: "Begin it" }).click();
  await expect(page.getByLabel("Title of the book")).toBeFocused();
  await page.getByRole("button", { name: "Cancel" }).click();
  await ways.getByRole("button", { name: "Open the demo book" }).click();
  await expect(page.getByRole("link", { name: "The Tidal Causeways of Hesterley Sound" })).toBeVisible();
});

test("each stage that has nothing yet says what it is for, and leads to its next step", async ({ page }) => {
  const book = await openOwnBook(page, "# One\n\nalpha beta");
  for (const [stage, next, to] of [
    ["links", "Make the first in Write", /write/],
    ["links/codes", "Bring files in", /links\/files$/],
    ["links/steps", "Choose links in the ledger", /links$/],
    ["checks", "Make a link in Write", /write/],
    ["checks/health", "Check the addresses", /checks$/],
    ["read", "Export one", /export$/],
  ] as const) {
    await page.goto(`/books/${book}/${stage}`);
    await page.getByRole("link", { name: next }).click();
    await expect(page).toHaveURL(to);
  }
});

test("the first link is shown step by step, and the guide can be left at any of them", async ({ page }) => {
  const book = await openOwnBook(page, "# One\n\nalpha beta");
  await page.goto(`/books/${book}/write?guide=first-link`);
  const guide = page.getByRole("region", { name: "Your first link" });
  await expect(guide).toContainText("1 of 4");
  await selectWords(page, "alpha");
  await expect(guide).toContainText("2 of 4");
  await page.keyboard.press("Control+k");
  await expect(guide).toContainText("3 of 4");
  expect(await violations(page)).toEqual([]);
  await page.keyboard.type("https://tides.hesterley.example/");
  await page.keyboard.press("Enter");
  await expect(guide).toContainText("4 of 4");
  await guide.getByRole("button", { name: "Leave the guide" }).click();
  await expect(guide).toBeHidden();
  await expect(text(page).getByRole("link", { name: "alpha" })).toBeVisible();
  await page.goto(`/books/${book}/write?guide=first-link`);
  await guide.getByRole("button", { name: "Leave the guide" }).click();
  await expect(guide).toBeHidden();
});

test("no stage of the demo book is empty after it was brought in by `npm start`", async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), "vennet-demo-"));
  const processes = new Processes();
  try {
    const { address, environment } = await startServices(processes, folder, await freePort(), {
      REACH_TIMEOUT_MS: "1500",
      REACH_RETRY_MS: "200",
    });
    await loadDemo(address);
    await liveWithDemo(address, `http://127.0.0.1:${environment["STANDIN_WEB_PORT"]}`);
    await page.goto(`${address}/sign-in`);
    await page.getByRole("button", { name: "Open the demo book" }).click();
    await expect(page.getByRole("main")).toContainText(/\d+sound/);
    await expect(page.getByRole("main")).not.toContainText("not checked");
    await page.getByRole("link", { name: "The Tidal Causeways of Hesterley Sound" }).click();
    await page.getByRole("link", { name: "Versions" }).click();
    await expect(page.getByText("As it was brought in")).toBeVisible();
    await page.getByRole("link", { name: "Checks", exact: true }).click();
    await page.getByRole("link", { name: "Health" }).click();
    await expect(page.getByRole("figure", { name: "States of the destinations over 3 runs" })).toBeVisible();
    await page.getByText("The same in numbers").click();
    const broken = await page.getByRole("table").getByRole("row").allInnerTexts();
    expect(new Set(broken.slice(1).map((row) => row.replace(/^\S+ \S+ \S+ \S+/, ""))).size).toBeGreaterThan(
      1,
    );
    await page.getByRole("link", { name: "Export", exact: true }).click();
    await expect(page.getByRole("link", { name: "Link proof" })).toHaveCount(2);
    await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Read" }).click();
    await expect(page.getByLabel("File to read").getByRole("option")).toHaveCount(2);
    await expect(page.locator("iframe, canvas").first()).toBeVisible();
    // It asks for nothing more of a server that is about to end.
    await page.goto("about:blank");
  } finally {
    await processes.endAll();
    rmSync(folder, { recursive: true, force: true });
  }
});
