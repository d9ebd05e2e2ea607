import { expect, openOwnBook, test } from "./fixtures";
import { violations } from "./violations";

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
  // The chapter, and the way to bring more in.
  await expect(chapters.getByRole("link")).toHaveCount(2);
  await page.getByRole("link", { name: "Bring in a manuscript" }).click();
  await page
    .getByLabel(/^The manuscript/)
    .setInputFiles(
      manuscript(
        "# Winter walks\n\n[office](https://tides.hesterley.example/) [x](javascript:alert(1))\n\n# Ice\n\nNo.",
      ),
    );
  await page.getByRole("button", { name: "Bring it in" }).click();
  const looked = page.getByRole("region", { name: "Look it over" });
  await expect(looked).toContainText("found 2 links in it");
  await looked.getByText("Links that a book cannot hold").click();
  await expect(looked.getByRole("list", { name: "Links that a book cannot hold" })).toContainText("line 3");
  expect(await violations(page)).toEqual([]);
  await looked.getByRole("button", { name: "Keep these chapters" }).click();
  const brought = page.getByRole("region", { name: "Brought in" });
  await expect(brought).toContainText("2 chapters are in “Tides” now");
  await brought.getByRole("link", { name: "Open the book" }).click();
  await expect(chapters.getByRole("link", { name: /Winter walks/ })).toBeVisible();
  await expect(chapters.getByRole("link", { name: /Ice/ })).toBeVisible();
  await expect(chapters.getByRole("link")).toHaveCount(4);
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
  await page.getByRole("button", { name: "Keep these chapters" }).click();
  const brought = page.getByRole("region", { name: "Brought in" });
  await expect(brought).toContainText("1 chapter is in");
  expect(await brought.evaluate((frame) => frame.scrollWidth - frame.clientWidth)).toBe(0);
});

test("relative links are counted together, and mended at once by where they start or by the files themselves", async ({
  page,
  quiet,
}) => {
  quiet.push("400");
  const bookId = await openOwnBook(page, own);
  await page.goto(`/books/${bookId}/bring-in`);
  const links = Array.from({ length: 120 }, (_, i) => `[walk ${i}](walks/${i}.html)`).join(" ");
  await page.getByLabel(/^The manuscript/).setInputFiles(manuscript(`# Walks\n\n${links} [plan](plan.pdf)`));
  await page.getByRole("button", { name: "Bring it in" }).click();
  const looked = page.getByRole("region", { name: "Look it over" });
  await expect(looked).toContainText("121Links to files that were not brought along");
  await expect(looked).toContainText("The first 100. The table has all of them.");
  const download = page.waitForEvent("download");
  await looked.getByRole("link", { name: /as a table/ }).click();
  expect((await download).suggestedFilename()).toBe("arrival-proof.csv");
  await looked.getByLabel("They start from this web address").fill("tides");
  await looked.getByRole("button", { name: "Read it again" }).click();
  await expect(looked).toContainText("is a whole web address");
  await looked.getByLabel("They start from this web address").fill("https://tides.hesterley.example/");
  await looked
    .getByLabel("Or bring the files")
    .setInputFiles({ name: "plan.pdf", mimeType: "application/pdf", buffer: Buffer.from("%PDF-1.4 plan") });
  await looked.getByRole("button", { name: "Read it again" }).click();
  await expect(looked.getByRole("definition").first()).toHaveText("121");
  await expect(looked).not.toContainText("not brought along");
  await looked.getByRole("button", { name: "Keep these chapters" }).click();
  await expect(page.getByRole("region", { name: "Brought in" })).toContainText("1 chapter is in");
  const files = (await (await page.request.get(`/api/books/${bookId}/files`)).json()) as { name: string }[];
  expect(files.map(({ name }) => name)).toEqual(["plan.pdf"]);
  await page.reload();
  await expect(page.getByRole("heading", { name: "What came in before" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "winter.md" }).first()).toBeVisible();
});

test("what was looked over and is not wanted leaves nothing", async ({ page }) => {
  const bookId = await openOwnBook(page, own);
  await page.goto(`/books/${bookId}/bring-in`);
  await page.getByLabel(/^The manuscript/).setInputFiles(manuscript("# Ice\n\nNo."));
  await page.getByRole("button", { name: "Bring it in" }).click();
  await page.getByRole("button", { name: "Drop it" }).click();
  await expect(page.getByRole("button", { name: "Bring it in" })).toBeVisible();
  expect(await (await page.request.get(`/api/books/${bookId}/chapters`)).json()).toHaveLength(1);
});

for (const { name, links } of [
  { name: "a text document (DOCX)", links: 13 },
  { name: "an OpenDocument text (ODT)", links: 6 },
  { name: "an e-book (EPUB)", links: 4 },
])
  test(`the example that is ${name} comes in with every link, its references and its notes`, async ({
    page,
  }) => {
    await openOwnBook(page, own);
    await page.goto("/");
    await page.getByRole("button", { name: "Bring in a manuscript" }).click();
    await page.getByRole("button", { name }).click();
    await page.getByRole("button", { name: "Bring it in" }).click();
    const look = page.getByRole("region", { name: "Look it over" });
    await expect(look).toContainText(`found ${links} links in it`);
    await expect(look.getByRole("term").filter({ hasText: "lost" }).locator("xpath=..")).toContainText("0");
    await page.getByRole("button", { name: "Keep it" }).click();
    await page.getByRole("link", { name: "Open the book" }).click();
    await expect(page.locator(".manuscript")).toBeVisible();
  });

test("a manuscript is dropped anywhere on the Shelf, with its pictures", async ({ page }) => {
  await openOwnBook(page, own);
  await page.goto("/");
  const transfer = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    data.items.add(new File(["x"], "path.png", { type: "image/png" }));
    data.items.add(new File(["# Dropped\n\n[a](https://a.example/)"], "dropped.md"));
    return data;
  });
  const heading = page.getByRole("heading", { name: "Shelf" });
  await heading.dispatchEvent("dragenter", { dataTransfer: transfer });
  await expect(page.getByText("Let go to bring it in")).toBeVisible();
  await heading.dispatchEvent("drop", { dataTransfer: transfer });
  await expect(page.getByText("Let go to bring it in")).toBeHidden();
  expect(
    await page.getByLabel(/^The manuscript/).evaluate((input: HTMLInputElement) => input.files![0]!.name),
  ).toBe("dropped.md");
  expect(
    await page.getByLabel(/^What belongs/).evaluate((input: HTMLInputElement) => input.files![0]!.name),
  ).toBe("path.png");
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByRole("region", { name: "Look it over" })).toContainText("found 1 link in it");
});

test("a new version is looked at link by link, a clash is chosen, and all of it is undone at once", async ({
  page,
}) => {
  const text =
    "# Tides\n\nLow water is at [nine](https://tides.hesterley.example/).\n\nAsk the warden.\n\n# Inns\n\nSleep well.\n";
  const bookId = await openOwnBook(page, text);
  const chapters = page.getByRole("navigation", { name: "Chapters" });
  await page.getByRole("textbox", { name: "Text of the chapter" }).getByText("Ask the warden.").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" Early.");
  await expect(page.getByText("Saved", { exact: true })).toBeVisible();
  await page.goto(`/books/${bookId}/bring-in`);
  await page.getByLabel("a new version of what is in the book").check();
  const next = text
    .replace("[nine](https://tides.hesterley.example/)", "[nine](https://tides.hesterley.example/today)")
    .replace("Ask the warden.", "Ask the wardens first.")
    .replace(/# Inns[\s\S]*/, "# Boats\n\nRow.\n");
  await page.getByLabel(/^The manuscript/).setInputFiles(manuscript(next));
  await page.getByRole("button", { name: "Bring it in" }).click();
  const changes = page.getByRole("region", { name: "What it changes" });
  await expect(changes).toContainText("3 chapters differ. 1 link changed.");
  await expect(changes.getByRole("list", { name: "Links that are others" })).toContainText(
    "https://tides.hesterley.example/today",
  );
  expect(await violations(page)).toEqual([]);
  await changes.getByRole("radio", { name: "As in the manuscript" }).check();
  await page.getByRole("button", { name: "Take it in" }).click();
  await expect(page.getByRole("region", { name: "Brought in" })).toContainText("1 changed, 1 new, 1 gone");
  await page.getByRole("link", { name: "Open the book" }).click();
  const writing = page.getByRole("textbox", { name: "Text of the chapter" });
  await expect(writing).toContainText("Ask the wardens first.");
  await expect(chapters.getByRole("link", { name: /Boats/ })).toBeVisible();
  await expect(chapters.getByRole("link", { name: /Inns/ })).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(writing).toContainText("Ask the warden. Early.");
  await expect(chapters.getByRole("link", { name: /Inns/ })).toBeVisible();
  await expect(chapters.getByRole("link", { name: /Boats/ })).toHaveCount(0);
});

test("pictures on the web are offered, fetched, and stand in the text", async ({ page }) => {
  const bookId = await openOwnBook(page, own);
  await page.goto(`/books/${bookId}/bring-in`);
  await page
    .getByLabel(/^The manuscript/)
    .setInputFiles(
      manuscript(
        "# Sheets\n\n![The sound](https://maps.hesterley.example/sheets/sound.png) ![Gone](https://maps.hesterley.example/sheets/gone.png)",
      ),
    );
  await page.getByRole("button", { name: "Bring it in" }).click();
  const looked = page.getByRole("region", { name: "Look it over" });
  await expect(looked).toContainText("2 pictures lie on the web, at maps.hesterley.example.");
  expect(await violations(page)).toEqual([]);
  await looked.getByRole("button", { name: "Fetch 2 pictures" }).click();
  await expect(looked).toContainText("One picture lies on the web");
  await looked.getByText("Pictures that could not be fetched").click();
  await expect(looked).toContainText("Its host answered 404.");
  await looked.getByRole("button", { name: "Keep these chapters" }).click();
  await page.getByRole("region", { name: "Brought in" }).getByRole("link", { name: "Open the book" }).click();
  await page.getByRole("link", { name: /Sheets/ }).click();
  const picture = page.getByRole("img", { name: "The sound" });
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((shown: HTMLImageElement) => shown.naturalWidth)).toBe(1);
});
