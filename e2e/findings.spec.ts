import { expect, openOwnBook, saved, test, text } from "./fixtures";

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
