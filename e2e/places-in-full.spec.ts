import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { AxeBuilder } from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, moveByKey, openOwnBook, saved, selectWords, test, text } from "./fixtures";

const markdown = `# Tides

Low water is at nine.[^1] See the table.

| Gauge | Bare |
|---|---|
| Tern Head | five hours |

## Springs

High water follows.

[^1]: Sound time.

# Questions

Ask at the quay.

## Answers

### Is it deep?

Not for long.

### Is it cold?

Always.
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});

const openChapter = (page: Page, name: string) =>
  page
    .getByRole("navigation", { name: "Chapters" })
    .getByRole("link", { name: new RegExp(name) })
    .click();
const reference = (page: Page) => page.getByRole("form", { name: "Cross-reference" });
/** Puts the cursor behind words, by selecting them and going right. */
const cursorAfter = async (page: Page, words: string) => {
  await selectWords(page, words);
  await page.keyboard.press("ArrowRight");
};
const references = (page: Page) => text(page).locator(".cross-reference");
const number = (page: Page) =>
  page.goto(`/books/${bookId}/links/numbers`).then(() => page.getByLabel("Headings are numbered"));
const write = (page: Page) => page.getByRole("link", { name: "Write" }).click();

test("a cross-reference is made by any part of a name, and follows its target's words and number", async ({
  page,
}) => {
  await cursorAfter(page, "See the table");
  await page.keyboard.type(" and ");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("cold");
  await expect(reference(page).getByRole("option").first()).toContainText("Heading in Questions");
  await expect(reference(page).getByLabel("Above or below")).toBeVisible();
  await expect(reference(page)).toContainText("has no number");
  await page.keyboard.press("Enter");
  await expect(references(page)).toHaveText("Is it cold?");
  await saved(page);

  await (await number(page)).selectOption({ label: "to headings 2: 3.1.4" });
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved: the book counts so now.")).toBeVisible();
  await write(page);
  await references(page).click();
  const card = page.getByLabel("Says");
  await card.selectOption({ label: "Its number: 2.1.2" });
  await expect(references(page)).toHaveText("2.1.2");
  await card.selectOption({ label: "Above or below: below" });
  await expect(references(page)).toHaveText("below");
  await card.selectOption({ label: "Its words: Is it cold?" });
  await saved(page);

  await openChapter(page, "Questions");
  await selectWords(page, "Is it cold?");
  await page.keyboard.type("Is the water cold?");
  await saved(page);
  await openChapter(page, "Tides");
  await expect(references(page)).toHaveText("Is the water cold?");

  // A target that is gone leaves a gap that is seen, and a finding.
  await openChapter(page, "Questions");
  await selectWords(page, "Is the water cold?");
  await page.keyboard.press("Backspace");
  await page.keyboard.press("Backspace");
  await saved(page);
  await openChapter(page, "Tides");
  await expect(references(page)).toHaveClass(/gap/);
  await references(page).click();
  await expect(page.getByText("The place in the book is gone.")).toBeVisible();
});

test("numbers on the page follow as chapters are moved", async ({ page }) => {
  await (await number(page)).selectOption({ label: "chapters alone: 3" });
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved: the book counts so now.")).toBeVisible();
  await write(page);
  await openChapter(page, "Questions");
  const title = text(page).locator("h1");
  await expect(title).toHaveAttribute("data-number", "2");
  await moveByKey(page, "Questions", "ArrowUp");
  await expect(title).toHaveAttribute("data-number", "1");
});

test("leaving the cross-reference line leaves all as it was, and one action is one undo", async ({
  page,
}) => {
  await cursorAfter(page, "See the table");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("spring");
  await page.keyboard.press("Escape");
  await expect(references(page)).toHaveCount(0);
  await expect(text(page)).toBeFocused();
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("spring");
  await expect(reference(page).getByRole("option").first()).toContainText("Springs");
  await page.keyboard.press("Enter");
  await expect(references(page)).toHaveText("Springs");
  await page.keyboard.press("Control+z");
  await expect(references(page)).toHaveCount(0);
});

test("a cross-reference is asked for before the book's places have come, and no key falls into the text", async ({
  page,
}) => {
  const held: (() => void)[] = [];
  let isHeld = true;
  await page.route("**/api/books/*/places", async (route) => {
    if (isHeld) await new Promise<void>((resolve) => held.push(resolve));
    await route.continue();
  });
  await page.reload();
  await cursorAfter(page, "See the table");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("spring");
  await expect(reference(page)).toContainText("The places of the book are on their way.");
  isHeld = false;
  held.forEach((release) => release());
  await expect(reference(page).getByRole("option").first()).toContainText("Springs");
  await page.keyboard.press("Enter");
  await expect(references(page)).toHaveText("Springs");
});

test("a list of questions keeps up with the text, and each answer has its way back", async ({ page }) => {
  await openChapter(page, "Questions");
  await cursorAfter(page, "Ask at the quay.");
  await page.getByRole("button", { name: "Signpost list" }).click();
  const panel = page.getByRole("group", { name: "Signpost list" });
  await panel.getByLabel(/^Lists/).selectOption("questions");
  await panel.getByLabel(/^Of/).selectOption({ label: "\u2003Answers" });
  await panel.getByLabel(/^The questions are/).selectOption({ label: "headings 2" });
  await panel.getByLabel("A return link after each section").check();
  await panel.getByLabel("Words of the return links").fill("Back to the questions");
  await panel.getByRole("button", { name: "Back to the text" }).click();
  const entries = text(page).locator(".signposts li");
  await expect(entries).toHaveText(["Is it deep?", "Is it cold?"]);
  const returns = text(page).locator(".made-return");
  await expect(returns).toHaveText(["Back to the questions", "Back to the questions"]);

  await cursorAfter(page, "Always.");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Is it far?");
  await page.getByLabel("Kind of paragraph").selectOption("2");
  await expect(entries).toHaveText(["Is it deep?", "Is it cold?", "Is it far?"]);
  await expect(returns).toHaveCount(3);

  await entries
    .nth(1)
    .getByText("Is it cold?")
    .click({ modifiers: ["Control"] });
  await expect(text(page).locator("h3.place-reached")).toHaveText("Is it cold?");
  await page.keyboard.press("Alt+b");
  await returns
    .first()
    .getByText("Back")
    .click({ modifiers: ["Control"] });
  await expect(text(page).locator(".signposts.place-reached")).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(entries).toHaveCount(3);
});

test("tables and notes are counted as the book says; a note is referred to again, and found when it is lost", async ({
  page,
}) => {
  await text(page).getByText("five hours").click();
  await page.getByRole("button", { name: "Caption" }).click();
  await page.keyboard.type("How long it is bare");
  const caption = text(page).locator("figcaption");
  await expect(caption).toHaveAttribute("data-number", "Table 1");
  await cursorAfter(page, "High water follows");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("sound time");
  await reference(page).getByLabel("As a note’s mark").check();
  await page.keyboard.press("Enter");
  await expect(text(page).locator("sup[data-note]")).toHaveCount(2);
  // One way back for each reference.
  await expect(text(page).locator("aside .made-return a")).toHaveCount(2);
  await text(page)
    .locator("aside .made-return a")
    .nth(1)
    .click({ modifiers: ["Control"] });
  await expect(text(page).locator(".place-reached")).toContainText("High water follows");
  await saved(page);

  await page.goto(`/books/${bookId}/links/numbers`);
  await page.getByLabel("Tables are counted").selectOption("chapter");
  await page.getByLabel("Words of the way back from a note").fill("to the text");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved: the book counts so now.")).toBeVisible();
  await write(page);
  await expect(caption).toHaveAttribute("data-number", "Table 1.1");
  await expect(text(page).locator("aside .made-return")).toHaveText("to the text to the text ");

  for (const words of ["Low water is at nine.", "High water follows"]) {
    await cursorAfter(page, words);
    await page.keyboard.press("Delete");
  }
  await expect(text(page).getByText("Nothing in the text refers to this note.")).toBeVisible();
});

test("text that is cut takes its anchors along, a copy gets its own", async ({ page }) => {
  await cursorAfter(page, "High water follows.");
  await page.keyboard.press("Enter");
  await page.keyboard.type("The mark is white.");
  await selectWords(page, "The mark is white.");
  await page.keyboard.press("Alt+a");
  await page.keyboard.press("Enter");
  const ids = () =>
    text(page)
      .locator("[data-anchor]")
      .evaluateAll((marks) => marks.map(({ id }) => id));
  await expect(text(page).locator("[data-anchor]")).toHaveCount(1);
  const [first] = await ids();
  const selectBlock = async () => {
    await text(page).getByText("The mark is white.").last().click();
    await page.keyboard.press("Home");
    await page.keyboard.press("Shift+End");
    await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toContain("The mark is white.");
  };
  await selectBlock();
  await page.keyboard.press("Control+x");
  await expect.poll(ids).toEqual([]);
  await cursorAfter(page, "Low water is at nine.");
  await page.keyboard.press("Control+v");
  await expect.poll(ids).toEqual([first]);
  await selectWords(page, "The mark is white.");
  await page.keyboard.press("Shift+ArrowLeft");
  await selectBlock();
  await page.keyboard.press("Control+c");
  await cursorAfter(page, "High water follows.");
  await page.keyboard.press("Control+v");
  await expect.poll(async () => (await ids()).length).toBe(2);
  const both = await ids();
  expect(both).toContain(first);
  expect(new Set(both).size).toBe(2);
});

test("a link may look like text when its author accepts that; the marks of anchors can be hidden", async ({
  page,
}) => {
  await selectWords(page, "nine");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://tides.hesterley.example/");
  await page.keyboard.press("Enter");
  await text(page).getByRole("link", { name: "nine" }).click();
  await page.getByLabel(/^Look/).selectOption("as the text around it");
  await expect(text(page).getByRole("link", { name: "nine" })).toHaveCSS("text-decoration-line", "none");
  await expect(page.getByText("readers may not find it")).toBeVisible();
  await page.getByRole("button", { name: "Accept", exact: true }).click();
  await page.getByLabel("Why it may stay").fill("It is told in the sentence before.");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Accepted: It is told in the sentence before.")).toBeVisible();
  await saved(page);
  await page.reload();
  await text(page).getByRole("link", { name: "nine" }).click();
  await expect(page.getByText("Accepted: It is told in the sentence before.")).toBeVisible();
  await page.getByRole("button", { name: "Withdraw" }).click();
  await expect(page.getByText("readers may not find it")).toBeVisible();

  await selectWords(page, "High water");
  await page.keyboard.press("Alt+a");
  await page.keyboard.press("Enter");
  const mark = () =>
    text(page)
      .locator("[data-anchor]")
      .evaluate((anchor) => getComputedStyle(anchor, "::after").display);
  expect(await mark()).toBe("inline-block");
  await page.getByRole("button", { name: "Show the marks of anchors" }).click();
  await expect.poll(mark).toBe("none");
  await saved(page);
  await page.reload();
  await expect.poll(mark).toBe("none");
});

test("the web page is exported, and a link that opens a new window says so", async ({ page }) => {
  await selectWords(page, "nine");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://tides.hesterley.example/");
  await page.keyboard.press("Enter");
  await text(page).getByRole("link", { name: "nine" }).click();
  await page.getByLabel("Opens a new window on web pages").click();
  await expect(page.getByLabel("Opens a new window on web pages")).toBeChecked();
  await saved(page);
  await page.getByRole("link", { name: "Export" }).click();
  await page.getByRole("radio", { name: "Web page" }).check();
  await page.getByRole("button", { name: "Export web page" }).click();
  await expect(page.getByText("All 1 link intact")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("tides.html");
  // A browser knows a page from disk by how its name ends.
  const file = join(mkdtempSync(join(tmpdir(), "vennet-web-")), download.suggestedFilename());
  await download.saveAs(file);
  await page.goto(pathToFileURL(file).href);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  const link = page.getByRole("link", { name: "nine (opens in a new window)" });
  await expect(link).toHaveAttribute("target", "_blank");
  await page.getByRole("link", { name: "Back to the text" }).click();
  await expect(page).toHaveURL(/#ref-/);
});
