import { expect, openOwnBook, paste, proofs, saved, selectWords, test, text } from "./fixtures";

test.beforeEach(async ({ page }) => {
  await openOwnBook(page, "# Walks\n\nFirst words.\n\nSecond **bold** words.\n");
  await text(page).locator("p").first().click();
  await page.keyboard.press("End");
});
const links = (page: import("@playwright/test").Page) => text(page).locator("a");

// Common practice: "www." is enough to be recognised as it is typed, a bare name.tld is not.
test("addresses become links at the next blank or Enter; a bare domain does not", async ({ page }) => {
  await page.keyboard.type(
    " See www.tides.example, or (https://maps.example/a_(b)). and wardens@causeways.example or tides.example now",
  );
  await expect(links(page)).toHaveText([
    "www.tides.example",
    "https://maps.example/a_(b)",
    "wardens@causeways.example",
  ]);
  expect(await links(page).evaluateAll((all) => all.map((a) => a.getAttribute("href")))).toEqual([
    "https://www.tides.example/",
    "https://maps.example/a_(b)",
    "mailto:wardens@causeways.example",
  ]);
  await page.keyboard.type(" https://ferry.example/");
  await expect(links(page)).toHaveCount(3);
  await page.keyboard.press("Enter");
  await expect(links(page)).toHaveCount(4);
  await expect(text(page).locator("p")).toHaveCount(3);
});

test("one that was undone, or removed, stays plain whatever is typed after it, and over a reload", async ({
  page,
}) => {
  await page.keyboard.type(" www.tides.example ");
  await expect(links(page)).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(links(page)).toHaveCount(0);
  await expect(text(page)).toContainText("www.tides.example");
  await page.keyboard.type("and ");
  await page.keyboard.press("Enter");
  await expect(links(page)).toHaveCount(0);
  await page.keyboard.type("www.maps.example ");
  await expect(links(page)).toHaveCount(1);
  await links(page).click();
  await page.getByRole("button", { name: "Remove link" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" ");
  await expect(links(page)).toHaveCount(0);
  await saved(page);
  await page.reload();
  await text(page).locator("p").first().click();
  await page.keyboard.press("End");
  await page.keyboard.type(" ");
  await expect(links(page)).toHaveCount(0);
});

test("pasted text links its addresses, the last one at the blank after it", async ({ page }) => {
  await paste(page, { plain: " see https://a.example/x and www.b.example" });
  await expect(links(page)).toHaveText(["https://a.example/x"]);
  await page.keyboard.type(" ");
  await expect(links(page)).toHaveText(["https://a.example/x", "www.b.example"]);
});

test("of a list of addresses that is pasted, each is a link, the last one at the blank after it", async ({
  page,
}) => {
  await paste(page, { plain: "\nhttps://a.example/x\nwww.b.example\n(https://c.example/)" });
  await expect(links(page)).toHaveText(["https://a.example/x", "www.b.example"]);
  await page.keyboard.press("Enter");
  await expect(links(page)).toHaveText(["https://a.example/x", "www.b.example", "https://c.example/"]);
});

test("a link over two paragraphs is one card, one row of the ledger, one link of the export", async ({
  page,
}) => {
  const bookId = new URL(page.url()).pathname.split("/")[2]!;
  await text(page).locator("p").first().click();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+End");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://tides.hesterley.example/both");
  await page.keyboard.press("Enter");
  const cards = page.getByRole("group", { name: "Margin cards" }).getByRole("button", { name: /^Link “/ });
  await expect(cards).toHaveCount(1);
  await expect(cards).toHaveAccessibleName(/First words\. Second bold words\./);
  await saved(page);
  const ledger = (await (await page.request.get(`/api/books/${bookId}/links`)).json()) as { total: number };
  expect(ledger.total).toBe(1);
  expect(await proofs(page, bookId)).toEqual([
    { format: "pdf", intact: 1, total: 1, extra: 0 },
    { format: "epub", intact: 1, total: 1, extra: 0 },
  ]);
  await cards.click();
  await page.getByRole("button", { name: "Remove link" }).click();
  await expect(links(page)).toHaveCount(0);
});

test("a click with the modifier asks before leaving the book", async ({ page }) => {
  await selectWords(page, "First");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://tides.hesterley.example/first");
  await page.keyboard.press("Enter");
  await links(page).click({ modifiers: ["Control"] });
  await expect(page.getByText("This leaves the book.")).toBeVisible();
  await expect(page.getByText("https://tides.hesterley.example/first").first()).toBeVisible();
});

test("with many links in view the cards fold to a line each, and the chosen one opens", async ({ page }) => {
  const many = Array.from({ length: 60 }, (_, i) => `[w${i}](https://stone-${i + 1}.hesterley.test/)`).join(
    " ",
  );
  await openOwnBook(
    page,
    `# Many\n\n${many}\n\n${"Plain words. ".repeat(900)}\n\n[last](https://stone-99.hesterley.test/)`,
  );
  const cards = page.locator("[data-card]");
  await expect(cards).toHaveCount(60);
  const heights = await cards.evaluateAll((all) => all.map((one) => (one as HTMLElement).offsetHeight));
  expect(Math.max(...heights)).toBeLessThan(30);
  await page.getByRole("button", { name: "Link “w30”" }).click();
  await expect(page.getByLabel("Leads to")).toHaveValue("https://stone-31.hesterley.test/");
  await page.locator("[data-scroll]").evaluate((scroller) => scroller.scrollTo(0, scroller.scrollHeight));
  await expect(page.getByRole("button", { name: "Link “last”" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Link “w0”" })).toHaveCount(0);
});

test("an address between words of a script without blanks becomes a link without them", async ({ page }) => {
  await page.keyboard.insertText("詳しくはhttps://tides.example/ebbを見る。");
  await page.keyboard.press("Enter");
  await page.keyboard.insertText("連絡先はwardens@causeways.exampleまで");
  await page.keyboard.press("Enter");
  await expect(links(page)).toHaveText(["https://tides.example/ebb", "wardens@causeways.example"]);
});
