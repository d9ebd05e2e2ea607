import { expect, openOwnBook, saved, test, text, vennet } from "./fixtures";

const markdown = `# Tides

For the tables look [here](https://tides.hesterley.example/today%22), or ask [the office](https://tides.hesterley.example/notes%22).

# Ways

The same tables: [of the Sound](https://tides.hesterley.example/sound).
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});

test("findings are listed by rule with their sentence; all are mended by one press and undone by one", async ({
  page,
}) => {
  await page.goto(`/books/${bookId}/checks`);
  await page.getByRole("link", { name: "Findings" }).click();
  const tails = page.getByRole("region", { name: "Something clings to the end of an address" });
  await expect(tails.getByRole("listitem")).toHaveCount(2);
  await expect(tails.getByRole("listitem").first()).toContainText("For the tables look here, or ask");
  await expect(tails.getByRole("insertion").first()).toHaveText("https://tides.hesterley.example/today");
  await tails.getByRole("button", { name: "Mend all 2" }).click();
  await expect(page.getByText("Mended 2 links")).toBeVisible();
  await expect(tails).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("2 links are as before")).toBeVisible();
  await expect(tails.getByRole("listitem")).toHaveCount(2);
});

test("a finding is accepted with a reason, here and in the margin alike, and gone to in its place", async ({
  page,
}) => {
  await page.goto(`/books/${bookId}/checks/findings`);
  const empty = page.getByRole("region", { name: "The words say nothing by themselves" });
  await empty.getByRole("button", { name: "Accept" }).click();
  await empty.getByLabel("Why it may stay").fill("Its sentence says it.");
  await page.keyboard.press("Enter");
  await expect(empty).toHaveCount(0);
  await page.getByRole("button", { name: "1 accepted" }).click();
  await expect(empty).toContainText("Accepted: Its sentence says it.");
  await empty.getByRole("link", { name: "Go there" }).click();
  await expect(page.getByText("Accepted: Its sentence says it.")).toBeVisible();
  await expect(text(page).locator(".link-active").first()).toHaveText("here");
});

test("the margin card mends what one press can", async ({ page }) => {
  await text(page).getByRole("link", { name: "the office" }).click();
  await expect(page.getByText('The address ends with “"”')).toBeVisible();
  await page.getByRole("button", { name: "Mend", exact: true }).click();
  await expect(page.getByLabel("Leads to")).toHaveValue("https://tides.hesterley.example/notes");
  await expect(page.getByText('The address ends with “"”')).toHaveCount(0);
  await saved(page);
});

test("the list is worked through by keys alone: next, mend, accept, go there and back", async ({ page }) => {
  await page.goto(`/books/${bookId}/checks/findings`);
  const list = page.getByRole("region", { name: "Findings of the rules" });
  await expect(list).toBeFocused();
  const rows = list.locator("[data-finding]");
  await expect(rows.first()).toBeVisible();
  const count = await rows.count();
  await page.keyboard.press("n");
  await expect(rows.first()).toBeFocused();
  await page.keyboard.press("m");
  await expect(rows).toHaveCount(count - 1);
  // The one that took its place has the focus.
  await expect(rows.first()).toBeFocused();
  await page.keyboard.press("n");
  await page.keyboard.press("p");
  await expect(rows.first()).toBeFocused();
  const first = await rows.first().innerText();
  await page.keyboard.press("a");
  await page.getByLabel("Why it may stay").fill("It may: letters like m and n are words here");
  await page.keyboard.press("Enter");
  await expect(rows).toHaveCount(count - 2);
  await expect(rows.first()).not.toHaveText(first);
  await expect(rows.first()).toBeFocused();
  const words = await rows.first().locator("mark").innerText();
  await page.keyboard.press("g");
  await expect(text(page).locator(".link-active").first()).toHaveText(words);
  await page.goBack();
  await expect(list).toBeVisible();
});

test("why a rule matters, and what its severity means, is told where it stands", async ({ page }) => {
  await page.goto(`/books/${bookId}/checks/findings`);
  const tails = page.getByRole("region", { name: "Something clings to the end of an address" });
  await expect(page.getByText("readers will meet it")).toBeVisible();
  await expect(tails.getByText("RFC 3986")).toHaveCount(0);
  await tails.getByRole("button", { name: "Why" }).click();
  await expect(tails.getByText("RFC 3986")).toBeVisible();
});

test("a page that says something else is shown then and now, and may be still right", async ({ page }) => {
  const path = `/then-and-now-${Date.now()}`;
  const own = await openOwnBook(
    page,
    `# T\n\nThe [tables of the coast](https://turning.example${path}) and [the walls](https://wall.example/low).\n`,
  );
  const check = async (): Promise<void> => {
    await page.goto(`/books/${own}/checks`);
    await page.getByRole("button", { name: "Check all" }).click();
    await expect(page.getByText(/The last run checked 2/)).toBeVisible();
  };
  await check();
  await page.goto(`/books/${own}/checks/findings`);
  const shut = page.getByRole("region", { name: "A destination could not be judged" });
  await expect(shut).toContainText("may be shut to programs");
  await shut.getByRole("button", { name: "I have looked" }).click();
  await expect(shut).toHaveCount(0);
  await fetch(`http://127.0.0.1:${vennet().environment.STANDIN_WEB_PORT}/~/turning.example${path}?turn`);
  await check();
  await page.goto(`/books/${own}/checks/findings`);
  const changed = page.getByRole("region", { name: "A page is no longer what was linked" });
  await expect(changed).toContainText("Tides of the Sound");
  await expect(changed).toContainText("Houses by the sea");
  await changed.getByRole("button", { name: "Still right" }).click();
  await expect(changed).toHaveCount(0);
  await expect(shut).toHaveCount(0);
});

test("words that lead elsewhere in another chapter are told beside the text too", async ({ page }) => {
  const own = await openOwnBook(
    page,
    "# A\n\nSee [the office](https://tides.hesterley.example/sound).\n\n# B\n\nSee [the office](https://weather.hesterley.example/).\n",
  );
  await page.goto(`/books/${own}/write`);
  await text(page).getByRole("link", { name: "the office" }).click();
  await expect(page.getByText("“the office” leads to two places.")).toBeVisible();
});

test("a copy of a linked page is kept on the author's word, and travels with the book", async ({ page }) => {
  const own = await openOwnBook(
    page,
    "# T\n\nThe [glossary](https://tides.hesterley.example/glossary) and [the office](https://nobody.hesterley.example/).\n",
  );
  await page.goto(`/books/${own}/checks`);
  await page.getByRole("button", { name: "Check all" }).click();
  await expect(page.getByText(/The last run checked 2/)).toBeVisible();
  const rows = page.getByRole("article");
  await expect(rows.getByRole("button", { name: "Keep a copy" })).toHaveCount(1);
  await rows.getByRole("button", { name: "Keep a copy" }).click();
  await expect(page.getByText("1 copy kept.")).toBeVisible();
  const copy = rows.getByRole("link", { name: "Kept copy" });
  await expect(copy).toBeVisible();
  const html = await (await page.request.get((await copy.getAttribute("href"))!)).text();
  expect(html).toContain("https://tides.hesterley.example/glossary");
  await page.goto(`/books/${own}/links/files`);
  await expect(page.getByText("tides.hesterley.example glossary (kept copy).html")).toBeVisible();
});
