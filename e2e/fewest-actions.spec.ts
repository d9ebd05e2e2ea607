import { join } from "node:path";
import type { Locator } from "@playwright/test";
import { expect, openDemo, openOwnBook, paste, saved, selectWords, test, text } from "./fixtures";

type Page = import("@playwright/test").Page;

/** A hand that counts: a key or chord, a press, a paste, and words typed in one go are one action each. */
class Hand {
  actions = 0;
  constructor(readonly page: Page) {}
  async key(chord: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.press(chord);
  }
  async type(words: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.type(words);
  }
  async press(what: Locator): Promise<void> {
    this.actions += 1;
    await what.click();
  }
  async paste(words: string): Promise<void> {
    this.actions += 1;
    await paste(this.page, { plain: words });
  }
}

const line = (page: Page) => page.getByRole("form", { name: "Link line" });
const link = (page: Page, words: string) => text(page).getByRole("link", { name: words, exact: true });
const card = (page: Page, words: string) => page.getByRole("button", { name: `Link “${words}”` });

const markdown = `# Crossing

Ask the tide office before you wade. See the shoals. The office knows best: the tide office.

# Refuges

Each box has a blanket, and its telephone works by a crank. Ask the tide office.
`;

test.describe("from selected words, counted", () => {
  let hand: Hand;
  test.beforeEach(async ({ page }) => {
    await openOwnBook(page, markdown);
    hand = new Hand(page);
  });

  test("a web link takes 1", async ({ page }) => {
    await selectWords(page, "tide office");
    await hand.paste("https://tides.hesterley.example/");
    await expect(card(page, "tide office")).toContainText("tides.hesterley.example");
    expect(hand.actions).toBe(1);
  });

  test("an email with its subject takes 3", async ({ page }) => {
    await selectWords(page, "tide office");
    await hand.key("Control+k");
    await hand.type("office@tides.hesterley.example?subject=Low water");
    await hand.key("Enter");
    await expect(card(page, "tide office")).toContainText("office@tides.hesterley.example");
    expect(hand.actions).toBe(3);
  });

  test("words within another chapter take 3, and have their anchor there", async ({ page }) => {
    await selectWords(page, "shoals");
    await hand.key("Control+k");
    await hand.type("telephone works");
    await hand.key("Enter");
    await expect(line(page)).toBeHidden();
    await expect(card(page, "shoals")).toContainText("telephone works");
    expect(hand.actions).toBe(3);
    await saved(page);
    await page.getByRole("link", { name: "Refuges" }).click();
    await expect(text(page).locator("[data-anchor]")).toHaveCount(1);
    await page.getByRole("link", { name: "Crossing" }).click();
  });

  test("words within this chapter take 3, whatever stands before the link moves", async ({ page }) => {
    await selectWords(page, "knows best");
    await hand.key("Control+k");
    await hand.type("you wade");
    await expect(line(page).getByRole("option").first()).toContainText("before you wade");
    await hand.key("Enter");
    await expect(card(page, "knows best")).toContainText("you wade");
    await expect(link(page, "knows best")).toHaveCount(1);
    expect(hand.actions).toBe(3);
    await page.keyboard.press("Control+z");
    await expect(link(page, "knows best")).toHaveCount(0);
  });

  test("a new page of their name takes 2", async ({ page }) => {
    await selectWords(page, "shoals");
    await hand.key("Control+k");
    await hand.key("Enter");
    await expect(card(page, "shoals")).toContainText("shoals");
    await expect(page.getByRole("link", { name: /shoals.*not written yet/ })).toBeVisible();
    expect(hand.actions).toBe(2);
  });

  test("a cross-reference takes 3, a note 2", async ({ page }) => {
    await selectWords(page, "shoals");
    await page.keyboard.press("ArrowRight");
    await hand.key("Alt+r");
    await hand.type("Refuges");
    await hand.key("Enter");
    await expect(text(page).locator(".cross-reference")).toHaveCount(1);
    expect(hand.actions).toBe(3);
    hand.actions = 0;
    await hand.press(page.getByRole("button", { name: "Note", exact: true }));
    await hand.type("At springs only.");
    await expect(text(page).locator("aside")).toContainText("At springs only.");
    expect(hand.actions).toBe(2);
  });

  test("every mention of a link's words takes 2", async ({ page }) => {
    await selectWords(page, "tide office");
    await paste(page, { plain: "https://tides.hesterley.example/" });
    await hand.press(page.getByRole("button", { name: "Link every mention" }));
    await hand.press(page.getByRole("button", { name: "Link 2 mentions" }));
    await expect(link(page, "tide office")).toHaveCount(2);
    expect(hand.actions).toBe(2);
  });

  test("a link on part of a link leaves the rest of it", async ({ page }) => {
    await selectWords(page, "tide office before you wade");
    await paste(page, { plain: "https://tides.hesterley.example/" });
    await selectWords(page, "before");
    await hand.key("Control+k");
    await hand.type("https://hours.hesterley.example/");
    await hand.key("Enter");
    await expect(text(page).getByRole("link")).toHaveText(["tide office", "before", "you wade"]);
    await expect(card(page, "you wade")).toContainText("tides.hesterley.example");
  });

  test("removing a link takes 1, going to the next chapter 1", async ({ page }) => {
    await selectWords(page, "tide office");
    await paste(page, { plain: "https://tides.hesterley.example/" });
    await hand.key("Alt+x");
    await expect(text(page).getByRole("link")).toHaveCount(0);
    await hand.key("Alt+PageDown");
    await expect(text(page).getByRole("heading", { name: "Refuges" })).toBeVisible();
    expect(hand.actions).toBe(2);
  });
});

test("a picture is a link by 1 action, an area of it by 4", async ({ page }) => {
  await openOwnBook(page, "# One\n\nalpha");
  await text(page).locator("p").click();
  await page
    .getByLabel("Picture file")
    .setInputFiles(join(import.meta.dirname, "../demo/manuscript/pictures/monks-path.png"));
  await page.getByLabel("Text alternative: what the picture shows").fill("Sketch map");
  await text(page).locator(".picture img").click();
  const hand = new Hand(page);
  await hand.paste("https://maps.hesterley.example/");
  await expect(card(page, "Sketch map")).toContainText("maps.hesterley.example");
  expect(hand.actions).toBe(1);

  hand.actions = 0;
  await hand.press(page.getByRole("button", { name: /^Hotspots/ }));
  const canvas = page.getByRole("region", { name: "Hotspots" }).locator("canvas").first();
  const box = (await canvas.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5, { steps: 4 });
  await page.mouse.up();
  hand.actions += 1;
  await hand.type("https://maps.hesterley.example/head");
  await hand.key("Enter");
  // It is in the text, though the drawing goes on.
  await saved(page);
  expect(hand.actions).toBe(4);
  await page.getByRole("button", { name: "Done" }).click();
  await expect(text(page).locator(".picture polygon")).toHaveCount(1);
});

test("codes in the text are noticed, with who may open their files, and linked by 2; the report says which", async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole("link", { name: "Links", exact: true }).click();
  const hand = new Hand(page);
  await hand.press(page.getByRole("link", { name: "Match codes to files" }));
  const row = (code: string) =>
    page.getByRole("row").filter({ has: page.getByRole("rowheader", { name: code }) });
  await expect(row("R1")).toContainText("anyone with the address may open it");
  await expect(row("R5")).toContainText("Causeway wardens may open it; your readers may not");
  await page.getByLabel("Confirm R5").uncheck();
  await hand.press(page.getByRole("button", { name: /^Link 5 codes in \d places$/ }));
  await expect(page.getByRole("status").filter({ hasText: "Undo" })).toContainText(
    "Linked “R1, R2, R3, R4, R6” in 6 places",
  );
  expect(hand.actions).toBe(2);
  // The demo book is that of other tests too.
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(/\d links are as before\./)).toBeVisible();
});
