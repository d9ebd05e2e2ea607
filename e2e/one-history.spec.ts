import { expect, moveByKey, openOwnBook, paste, saved, selectWords, test, text } from "./fixtures";

const markdown = `# Crossing

Ask the tide office. The tide office knows. <a id="post"></a>The fifth post is white.

# Refuges

Each box has a blanket. Ask the tide office.
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});
type Page = import("@playwright/test").Page;
const undo = (page: Page) => page.keyboard.press("Control+z");
const redo = (page: Page) => page.keyboard.press("Control+Shift+z");
const links = (page: Page) => text(page).getByRole("link");
const heading = (page: Page, name: string) => text(page).getByRole("heading", { name });
const chapters = (page: Page) =>
  page.getByRole("navigation", { name: "Chapters" }).getByRole("link", { name: /^\d/ });

test("one key takes back what was done last, in the text or over the book, until all is as it was", async ({
  page,
}) => {
  await selectWords(page, "tide office");
  await paste(page, { plain: "https://tides.hesterley.example/" });
  await page.getByRole("button", { name: "Link every mention" }).click();
  await page.getByRole("button", { name: "Link 2 mentions" }).click();
  await expect(links(page)).toHaveCount(2);
  await text(page).focus();
  await undo(page);
  await expect(links(page)).toHaveCount(1);
  await redo(page);
  await expect(links(page)).toHaveCount(2);
  await text(page).getByText("knows").click();
  await page.keyboard.press("Control+End");
  // At once: letters that a slow machine types half a second apart are taken back one by one.
  await page.keyboard.insertText(" Wade.");
  await saved(page);

  await undo(page);
  await expect(text(page)).not.toContainText("Wade.");
  await expect(links(page)).toHaveCount(2);
  await undo(page);
  await expect(links(page)).toHaveCount(1);
  await saved(page);
  await undo(page);
  await expect(links(page)).toHaveCount(0);
  await page.getByRole("link", { name: "Refuges" }).click();
  await expect(heading(page, "Refuges")).toBeVisible();
  await expect(links(page)).toHaveCount(0);
});

test("what was typed before a chapter was left is taken back in it, from another one too", async ({
  page,
}) => {
  await selectWords(page, "white");
  await page.keyboard.insertText("red");
  await saved(page);
  await page.getByRole("link", { name: "Refuges" }).click();
  await expect(heading(page, "Refuges")).toBeVisible();
  await selectWords(page, "blanket");
  await page.keyboard.insertText("rope");
  await saved(page);
  await undo(page);
  await expect(text(page)).toContainText("blanket");
  await undo(page);
  await expect(heading(page, "Crossing")).toBeVisible();
  await expect(text(page)).toContainText("white");
  await redo(page);
  await expect(text(page)).toContainText("red");
  await redo(page);
  await expect(heading(page, "Refuges")).toBeVisible();
  await expect(text(page)).toContainText("rope");
});

test("a chapter that was moved, renamed or deleted is as it was again, and again as it was made", async ({
  page,
}) => {
  await moveByKey(page, "Refuges", "ArrowUp");
  await expect(chapters(page).first()).toContainText("Refuges");
  await undo(page);
  await expect(chapters(page).first()).toContainText("Crossing");
  await redo(page);
  await expect(chapters(page).first()).toContainText("Refuges");

  await chapters(page).first().focus();
  await page.keyboard.press("F2");
  await page.keyboard.type("Boxes");
  await page.keyboard.press("Enter");
  await expect(chapters(page).first()).toContainText("Boxes");
  await chapters(page).first().focus();
  await page.keyboard.press("Delete");
  await expect(chapters(page)).toHaveCount(1);
  await page.getByRole("button", { name: "Link", exact: true }).focus();
  await undo(page);
  await expect(chapters(page)).toHaveCount(2);
  await undo(page);
  await expect(chapters(page).first()).toContainText("Refuges");
});

test("an anchor that was renamed gets its name back", async ({ page }) => {
  await page.getByRole("radio", { name: "Places" }).click();
  const places = page.getByRole("navigation", { name: "Places" });
  await places.getByRole("button", { name: /^Change the anchor “post”/ }).click();
  await places.getByRole("textbox").fill("fifth post");
  await page.keyboard.press("Enter");
  await expect(places.getByRole("button", { name: /^Change the anchor “fifth post”/ })).toBeVisible();
  await text(page).focus();
  await undo(page);
  await expect(places.getByRole("button", { name: /^Change the anchor “post”/ })).toBeVisible();
});

test("a file that was deleted comes back under its links", async ({ page, quiet }) => {
  // A link leads to it, so it is asked for twice.
  quiet.push("409");
  await page.goto(`/books/${bookId}/links/files`);
  await page
    .getByLabel("Files to bring in")
    .setInputFiles({ name: "plan.txt", mimeType: "text/plain", buffer: Buffer.from("The plan.") });
  await expect(page.getByText("no link leads here")).toBeVisible();
  await page.getByRole("link", { name: "Write", exact: true }).click();
  await selectWords(page, "fifth post");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("plan.txt");
  await page.keyboard.press("Enter");
  await expect(links(page)).toHaveCount(1);
  await saved(page);
  await page.goto(`/books/${bookId}/links/files`);
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await page.getByRole("button", { name: "Delete all the same" }).click();
  await expect(page.getByText("No file travels with this book yet.")).toBeVisible();
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("1 link leads here")).toBeVisible();
  const [{ id }] = (await (await page.request.get(`/api/books/${bookId}/files`)).json()) as [{ id: string }];
  expect(await (await page.request.get(`/api/books/${bookId}/files/${id}`)).text()).toBe("The plan.");
});

test("an earlier version that was brought back gives way to the text again", async ({ page }) => {
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByLabel("Save it as it is now, as").fill("First");
  await page.keyboard.press("Enter");
  await page.getByRole("link", { name: "Back to the text" }).click();
  await selectWords(page, "white");
  await page.keyboard.type("red");
  await saved(page);
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByRole("row", { name: /First/ }).getByRole("button", { name: "Bring back" }).click();
  await expect(text(page)).toContainText("white");
  await text(page).focus();
  await undo(page);
  await expect(text(page)).toContainText("red");
});
