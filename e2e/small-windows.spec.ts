import { expect, openDemo, openOwnBook, selectWords, test, text } from "./fixtures";
import { violations } from "./violations";

const sizes = [
  [640, 400],
  [390, 844],
  [800, 600],
  [1024, 700],
] as const;

for (const [width, height] of sizes) {
  test.describe(`a window of ${width} by ${height}`, () => {
    test.use({ viewport: { width, height } });

    test("leaves two thirds of its height to the text, and every tool within reach", async ({ page }) => {
      await openDemo(page);
      const shown = () =>
        text(page).evaluate((root) => {
          const bottom = document.querySelector("[aria-label='Text tools']")!.getBoundingClientRect().bottom;
          const drawer = document.querySelector("[role=group][aria-label=Links]")?.getBoundingClientRect();
          const around = root.closest("[data-scroll]")!.getBoundingClientRect();
          return Math.min(around.bottom, drawer?.top ?? Infinity) - bottom;
        });
      await expect.poll(shown).toBeGreaterThanOrEqual((height * 2) / 3);
      await expect
        .poll(() => page.evaluate(() => document.documentElement.scrollWidth))
        .toBeLessThanOrEqual(width);
      await selectWords(page, "The rest of the time");
      const folded = page.getByRole("button", { name: "More tools" });
      await folded.click();
      await expect(page.getByRole("menuitem", { name: "Section break" })).toBeVisible();
      await page.keyboard.press("Escape");
      await expect(folded).toBeFocused();
      expect(await violations(page)).toEqual([]);
    });

    test("has the link line whole, and the card of a link", async ({ page }) => {
      await openOwnBook(page, `# Crossing\n\n${"The sea goes and comes. ".repeat(20)}\n\nAsk the office.`);
      await selectWords(page, "office");
      await page.getByRole("button", { name: "Link", exact: true }).click();
      const line = page.getByRole("form", { name: "Link line" });
      await line.getByLabel("Leads to").fill("https://hours.hesterley.example/");
      await expect(line.getByRole("button", { name: "Link", exact: true })).toBeInViewport({ ratio: 1 });
      await page.keyboard.press("Enter");
      const links = page.getByRole("group", { name: "Links" });
      if (width < 960) await links.getByRole("button", { name: /^\d+ links?$/ }).click();
      const description = page.getByRole("textbox", { name: "Description" });
      await description.fill("Hours of low water");
      await page.keyboard.press("Enter");
      await expect(text(page)).toBeFocused();
      expect(await violations(page)).toEqual([]);
    });
  });
}

test.describe("a narrow window", () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test("has chapters and places in a drawer, and the rest of the head in a menu", async ({ page }) => {
    await openDemo(page);
    const drawer = page.getByRole("button", { name: "Chapters and places" });
    await drawer.click();
    expect(await violations(page)).toEqual([]);
    await page.getByRole("link", { name: "The Long Stane" }).click();
    await expect(text(page).getByRole("heading", { name: "The Long Stane" })).toBeVisible();
    await expect(page.getByRole("dialog")).toBeHidden();
    await drawer.click();
    await page.getByRole("radio", { name: "Places" }).click();
    await page.keyboard.press("Escape");
    await expect(drawer).toBeFocused();
    await page.getByRole("button", { name: "Menu" }).click();
    expect(await violations(page)).toEqual([]);
    await page.getByRole("link", { name: "Versions" }).click();
    await expect(page).toHaveURL(/versions$/);
  });

  test("has the ledger as cards, which are chosen, ordered, filtered and edited", async ({ page }) => {
    await openDemo(page);
    await page.getByRole("link", { name: "Links", exact: true }).click();
    const table = page.getByRole("table", { name: "Link ledger" });
    await expect(table.getByText("good boots")).toBeVisible();
    expect(await table.evaluate((one) => one.scrollWidth - one.clientWidth)).toBe(0);
    expect(await violations(page)).toEqual([]);
    await page.getByRole("combobox", { name: "Order" }).selectOption("text");
    await expect(table.getByRole("row").nth(1)).not.toContainText("good boots");
    await page.getByRole("button", { name: "Filters" }).click();
    await page.getByRole("combobox", { name: "Kind" }).selectOption("email");
    await expect(table.getByRole("row").nth(1)).toContainText("Email");
    await table.getByRole("button", { name: /^Edit/ }).first().click();
    const edit = page.getByRole("form", { name: /^Edit the link/ });
    await edit.getByLabel("Description").fill("The wardens");
    await page.keyboard.press("Enter");
    await expect(table).toContainText("The wardens");
  });
});

test("what is pointed at tells where it leads, a sign its name and keys, at once", async ({ page }) => {
  await openDemo(page);
  await text(page).getByRole("link", { name: "tide tables for the Sound" }).hover();
  await expect(
    page.getByText("https://tides.hesterley.example/tables/today\nToday's tide tables"),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByText("https://tides.hesterley.example/tables/today\nToday's")).toBeHidden();
  const [reference, picture] = ["Cross-reference", "Picture"].map((name) =>
    page.getByRole("button", { name, exact: true }),
  );
  await reference!.focus();
  // The focus moves a moment after the key.
  await page.keyboard.press("ArrowRight");
  await expect(picture!).toBeFocused();
  await page.keyboard.press("ArrowLeft");
  await expect(reference!).toBeFocused();
  const ofFocus = page.getByText("Cross-reference (Alt R)");
  await expect(ofFocus).toBeVisible();
  // The pointer that goes elsewhere, and what scrolls beside it, leave the words of the focus there.
  await page.mouse.move(640, 420);
  await page.mouse.wheel(0, 60);
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await expect(ofFocus).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(ofFocus).toBeHidden();
});
