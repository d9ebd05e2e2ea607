import { expect, openOwnBook, test } from "./fixtures";

const linked = Array.from({ length: 130 }, (_, i) => `Ask [here](https://stone-${i}.hesterley.test/).`);
const markdown = `# Posts\n\n${linked.join("\n\n")}`;
// The last of them leads to a file that does not travel along.
const withLost = `${markdown}\n\nSee [the plan](plan.pdf).`;
const plain = {
  type: "doc",
  content: [
    { type: "title", attrs: { id: "stones" }, content: [{ type: "text", text: "Stones" }] },
    ...Array.from({ length: 130 }, (_, i) => ({
      type: "paragraph",
      content: [{ type: "text", text: `Or see https://post-${i}.hesterley.test/ for it.` }],
    })),
  ],
};

test("long lists are shown in part, and whole when more is asked for; what is done is done to all", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, markdown);
  await page.goto(`/books/${bookId}/checks`);
  const destinations = page.getByRole("article");
  await expect(destinations).toHaveCount(100);
  await page.getByRole("button", { name: "Show the other 30" }).click();
  await expect(destinations).toHaveCount(130);
  // Who reads on goes on from the first of them.
  await expect(destinations.nth(100)).toBeFocused();
  await expect(page.getByRole("button", { name: /^Show/ })).toHaveCount(0);

  await page.request.post(`/api/books/${bookId}/exports`, { data: { format: "web" } });
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("link", { name: "Link proof" }).click();
  const rows = page.getByRole("region", { name: "Links of the manuscript" }).getByRole("row");
  // With the row of heads.
  await expect(rows).toHaveCount(101);
  await page.getByRole("button", { name: "Show the other 30" }).click();
  await expect(rows).toHaveCount(131);
  await expect(rows.nth(101)).toBeFocused();

  await page.request.post(`/api/books/${bookId}/chapters`, { data: { title: "Stones", document: plain } });
  await page.goto(`/books/${bookId}/links/addresses`);
  await expect(page.getByRole("checkbox", { name: /hesterley\.test/ })).toHaveCount(100);
  await page.getByRole("button", { name: "Link 130 addresses" }).click();
  await expect(page.getByText("Every address that stands in the text is a link.")).toBeVisible();
});

test("keys go through a long list of findings without a press in between", async ({ page }) => {
  const bookId = await openOwnBook(page, markdown);
  await page.goto(`/books/${bookId}/checks/findings`);
  const rows = page
    .getByRole("region", { name: "The words say nothing by themselves" })
    .locator("[data-finding]");
  await expect(rows).toHaveCount(100);
  await expect(page.getByRole("region", { name: "Findings of the rules" })).toBeFocused();
  for (let i = 0; i < 100; i++) await page.keyboard.press("n");
  await expect(rows).toHaveCount(130);
  await page.keyboard.press("n");
  await expect(rows.nth(100)).toBeFocused();
});

test("what is wrong has not to be looked for in a long proof", async ({ page }) => {
  const bookId = await openOwnBook(page, withLost);
  await page.request.post(`/api/books/${bookId}/exports`, { data: { format: "web" } });
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("link", { name: "Link proof" }).click();
  const rows = page.getByRole("region", { name: "Links of the manuscript" }).getByRole("row");
  await expect(rows).toHaveCount(2);
  await expect(rows.last()).toContainText("Missing");
  await page.getByLabel("Show only what is wrong").uncheck();
  await expect(rows).toHaveCount(101);
});
