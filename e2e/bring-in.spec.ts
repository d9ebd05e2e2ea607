import { expect, openOwnBook, test } from "./fixtures";

// Books of their own: other tests count the links of the demo, and look for it by its title.
const own = "# Tides\n\nLow water is at nine.\n";

const manuscript = (markdown: string) => ({
  name: "winter.md",
  mimeType: "text/markdown",
  buffer: Buffer.from(markdown),
});

test("chapters are brought into a book behind those that it has, with what could not come", async ({
  page,
}) => {
  await openOwnBook(page, own);
  const chapters = page.getByRole("navigation", { name: "Chapters" });
  const before = await chapters.getByRole("link").count();
  await page.getByRole("link", { name: "Bring in chapters" }).click();
  await page
    .getByLabel(/^The manuscript/)
    .setInputFiles(
      manuscript(
        "# Winter walks\n\n[office](https://tides.hesterley.example/) [x](javascript:alert(1))\n\n# Ice\n\nNo.",
      ),
    );
  await page.getByRole("button", { name: "Bring it in" }).click();
  const brought = page.getByRole("region", { name: "Brought in" });
  await expect(brought).toContainText("2 chapters are in “Tides” now");
  await expect(brought.getByRole("row").nth(1)).toContainText("line 3");
  await brought.getByRole("link", { name: "Open the book" }).click();
  await expect(chapters.getByRole("link", { name: /Winter walks/ })).toBeVisible();
  await expect(chapters.getByRole("link", { name: /Ice/ })).toBeVisible();
  expect(await chapters.getByRole("link").count()).toBe(before + 2);
});

test("bringing in is cancelled while it is sent, and what cannot be read is said; neither leaves a chapter", async ({
  page,
  quiet,
}) => {
  quiet.push("422", "net::ERR", "Failed to load");
  const bookId = await openOwnBook(page, own);
  const chapters = async () =>
    ((await (await page.request.get(`/api/books/${bookId}/chapters`)).json()) as unknown[]).length;
  const before = await chapters();
  await page.goto(`/books/${bookId}/bring-in`);
  // The request is held until it is given up.
  let arrived = () => undefined as void;
  const sent = new Promise<void>((resolve) => (arrived = resolve));
  await page.route("**/import", () => arrived());
  await page.getByLabel(/^The manuscript/).setInputFiles(manuscript("# Never\n\nText."));
  await page.getByRole("button", { name: "Bring it in" }).click();
  await sent;
  await expect(page.getByRole("progressbar", { name: "Bringing in" })).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByRole("button", { name: "Bring it in" })).toBeVisible();
  await page.unroute("**/import");

  await page.getByLabel(/^The manuscript/).setInputFiles({
    name: "plan.md",
    mimeType: "text/markdown",
    buffer: Buffer.from([0x50, 0x4b, 0x03, 0x04, 0xff, 0x00]),
  });
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByText("“plan.md” is not a manuscript that Vennet can read.")).toBeVisible();
  expect(await chapters()).toBe(before);
});

test("a title of one long word stays within its frame", async ({ page }) => {
  const bookId = await openOwnBook(page, own);
  await page.request.patch(`/api/books/${bookId}`, { data: { title: "Causeway".repeat(60) } });
  await page.goto(`/books/${bookId}/bring-in`);
  await page.getByLabel(/^The manuscript/).setInputFiles(manuscript("# Ice\n\nNo."));
  await page.getByRole("button", { name: "Bring it in" }).click();
  const brought = page.getByRole("region", { name: "Brought in" });
  await expect(brought).toContainText("1 chapter is in");
  expect(await brought.evaluate((frame) => frame.scrollWidth - frame.clientWidth)).toBe(0);
});
