import { expect, openOwnBook, saved, selectWords, test, text } from "./fixtures";

const markdown = `# Tides

Low water is at nine. See [the crossing](#crossing), or [springs](#springs).

${"Plain words about the sea. ".repeat(400)}

## Springs

High water follows.

# Crossing

Go when it is low.
`;
test.beforeEach(async ({ page }) => {
  await openOwnBook(page, markdown);
});
type Page = import("@playwright/test").Page;
const places = (page: Page) => page.getByRole("navigation", { name: "Places" });
const showPlaces = (page: Page) => page.getByRole("radio", { name: "Places" }).click();
const follow = async (page: Page, words: string) => {
  await text(page)
    .getByRole("link", { name: words })
    .click({ modifiers: ["Control"] });
  await page.getByRole("button", { name: "Go there" }).click();
};

test("an anchor is put on words with any name, found in the link line by it, and renamed without a word changed", async ({
  page,
}) => {
  await selectWords(page, "Low water");
  await page.keyboard.press("Alt+a");
  const name = page.getByRole("group", { name: "Anchor" }).getByLabel(/^Name of the anchor/);
  await expect(name).toHaveValue("Low water");
  await name.fill("Niedrig-wasser 干潮");
  await saved(page);
  await page.getByRole("link", { name: /Crossing/ }).click();
  await selectWords(page, "it is low");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("wasser");
  await expect(page.getByRole("listbox").getByRole("option").first()).toContainText("Anchor in Tides");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Link “it is low”" })).toContainText("Niedrig-wasser 干潮");
  await saved(page);

  await showPlaces(page);
  await places(page).getByRole("button", { name: "Change the anchor “Niedrig-wasser 干潮”" }).click();
  await places(page).getByLabel("Name").fill("Low-water mark");
  await places(page).getByRole("button", { name: "Rename" }).click();
  await expect(page.getByRole("button", { name: "Link “it is low”" })).toContainText("Low-water mark");
  await expect(text(page)).toContainText("Go when it is low.");
});

test("places are listed in reading order, and gone to on the same screen, further down, and in another chapter", async ({
  page,
}) => {
  await showPlaces(page);
  await expect(places(page).getByRole("listitem")).toHaveText([/Tides/, /Springs/, /Crossing/]);
  await expect(places(page).getByRole("listitem").nth(1)).toContainText("1 link leads here");
  await places(page).getByRole("button", { name: "Springs" }).click();
  await expect(text(page).getByRole("heading", { name: "Springs" })).toBeInViewport();
  await expect(text(page).locator(".place-reached")).toHaveText("Springs");
  await expect(text(page).locator(".place-reached")).toHaveCount(0);
  await places(page).getByRole("button", { name: "Crossing" }).click();
  await expect(text(page).getByRole("heading", { name: "Crossing" })).toBeVisible();
});

test("Back returns to the exact place and cursor, over chapters too", async ({ page }) => {
  const scrolled = () => page.locator("[data-scroll]").evaluate((one) => one.scrollTop);
  const top = await scrolled();
  await follow(page, "springs");
  await expect(text(page).getByRole("heading", { name: "Springs" })).toBeInViewport();
  await expect.poll(scrolled).toBeGreaterThan(top);
  await page.keyboard.press("Alt+b");
  await expect.poll(scrolled).toBe(top);
  await page.keyboard.type("wells");
  await expect(text(page).getByRole("link", { name: "springs" })).toHaveCount(0);
  await page.keyboard.press("Control+z");

  await follow(page, "the crossing");
  await expect(text(page).getByRole("heading", { name: "Crossing" })).toBeVisible();
  await page.getByRole("button", { name: "Back to where you were" }).click();
  await expect(page.getByRole("button", { name: "Link “the crossing”" })).toHaveAttribute(
    "aria-expanded",
    "true",
  );
});

test("a used anchor is taken out only with word about its links, and one undo brings it back", async ({
  page,
}) => {
  await selectWords(page, "Low water");
  await page.keyboard.press("Alt+a");
  await page.getByLabel(/^Name of the anchor/).press("Enter");
  await selectWords(page, "at nine");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("low wat");
  await page.keyboard.press("Enter");
  await saved(page);
  await showPlaces(page);
  await places(page).getByRole("button", { name: "Change the anchor “Low water”" }).click();
  await places(page)
    .getByLabel(/^Where its 1 link/)
    .selectOption({ label: "Springs (Tides)" });
  await places(page).getByRole("button", { name: "Delete anchor" }).click();
  await expect(text(page).locator("[data-anchor]")).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Link “at nine”" })).toContainText("Springs");
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect(text(page).locator("[data-anchor]")).toHaveCount(1);
  await expect(page.getByRole("button", { name: "Link “at nine”" })).toContainText("Low water");
});
