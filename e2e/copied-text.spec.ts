import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { redDot } from "@vennet/core/test/red-dot";
import { spelledOut } from "@vennet/core/test/spelled-out";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
import { expect, openOwnBook, paste, saved, selectWords, test, text } from "./fixtures";

const markdown = `# Low water

The sands are bare by day.[^1] Wait here.

[^1]: By night they are not.

# Ways

By foot only.
`;

const notes = (page: import("@playwright/test").Page) => text(page).locator("aside");
const signs = (page: import("@playwright/test").Page) => text(page).locator("sup[data-note]");

test.beforeEach(async ({ page }) => {
  await openOwnBook(page, markdown);
});

test("text of another program brings its notes: a sign where it is pasted, the note at the chapter’s end", async ({
  page,
}) => {
  await text(page).getByText("Wait here.").click();
  await page.keyboard.press("End");
  await paste(page, {
    html: `<p>The tide<a href="#_ftn1" name="_ftnref1">[1]</a> turns.</p><div><hr><div id="ftn1"><p><a href="#_ftnref1" name="_ftn1">[1]</a> Twice a day, says <a href="https://tides.hesterley.example/">the office</a>.</p></div></div>`,
  });
  await expect(notes(page)).toHaveCount(2);
  await expect(notes(page).last()).toContainText("Twice a day, says the office.");
  await expect(signs(page)).toHaveCount(2);
  await expect(signs(page).first()).toHaveAttribute("data-number", "1");
  await expect(signs(page).last()).toHaveAttribute("data-number", "2");
  await expect(text(page).locator("hr")).toHaveCount(0);
  // What came by one press goes by one.
  await page.keyboard.press("Control+z");
  await expect(notes(page)).toHaveCount(1);
  await expect(signs(page)).toHaveCount(1);
  await page.keyboard.press("Control+Shift+z");
  await expect(notes(page)).toHaveCount(2);
  await saved(page);
  await page.reload();
  await expect(notes(page).last()).toContainText("Twice a day");
});

test("text that is copied into another chapter brings its notes along; in its own it calls the same one again", async ({
  page,
}) => {
  await selectWords(page, "The sands are bare by day.");
  await page.keyboard.press("Shift+End");
  await page.keyboard.press("Control+c");
  await page.keyboard.press("End");
  await page.keyboard.press("Control+v");
  await expect(signs(page)).toHaveCount(2);
  await expect(notes(page)).toHaveCount(1);
  await saved(page);
  await page.getByRole("link", { name: "Ways" }).click();
  await expect(text(page)).toContainText("By foot only.");
  await text(page).getByText("By foot only.").click();
  await page.keyboard.press("End");
  await page.keyboard.press("Control+v");
  await expect(signs(page)).toHaveCount(1);
  await expect(notes(page)).toContainText("By night they are not.");
  await saved(page);
  await page.reload();
  await expect(signs(page)).toHaveAttribute("data-number", "1");
  await expect(notes(page)).toContainText("By night they are not.");
});

test("a whole chapter with everything that a text can have is the same where it is pasted", async ({
  page,
}) => {
  const file = {
    name: "walks.epub",
    mimeType: "application/epub+zip",
    buffer: Buffer.from(writeEpub(bookOfEveryFeature())),
  };
  const brought = await page.request.post("/api/books/import", { multipart: { manuscript: file } });
  const { id: job } = (await brought.json()) as { id: string };
  await page.request.get(`/api/jobs/${job}/events`);
  const { book } = (await (await page.request.get(`/api/jobs/${job}/import`)).json()) as {
    book: { id: string };
  };
  const chapters = `/api/books/${book.id}/chapters`;
  const listed = (await (await page.request.get(chapters)).json()) as { id: string }[];
  const documentOf = async (id: string) => {
    const { document } = (await (await page.request.get(`${chapters}/${id}`)).json()) as { document: never };
    return spelledOut([readChapter(document)], new Map());
  };
  for (const { id } of listed) {
    await page.goto(`/books/${book.id}/write/${id}`);
    await text(page).locator("h1").click();
    await page.keyboard.press("Control+a");
    await page.keyboard.press("Control+c");
    const made = await page.request.post(chapters, { data: { title: "Empty" } });
    const { id: copy } = (await made.json()) as { id: string };
    await page.goto(`/books/${book.id}/write/${copy}`);
    await expect(text(page)).toContainText("Empty");
    await text(page).locator("h1").click();
    await page.keyboard.press("Control+a");
    await page.keyboard.press("Control+v");
    await expect(text(page)).not.toContainText("Empty");
    await saved(page);
    expect(await documentOf(copy)).toEqual(await documentOf(id));
  }
});

test("text of another book brings its notes, pictures and files along", async ({ page, quiet }) => {
  // Until they have come, the pictures are asked for in a book that does not have them.
  quiet.push("404");
  const file = {
    name: "walks.epub",
    mimeType: "application/epub+zip",
    buffer: Buffer.from(writeEpub(bookOfEveryFeature())),
  };
  const here = new URL(page.url()).pathname.split("/")[2]!;
  const brought = await page.request.post("/api/books/import", { multipart: { manuscript: file } });
  const { id: job } = (await brought.json()) as { id: string };
  await page.request.get(`/api/jobs/${job}/events`);
  const result = await page.request.get(`/api/jobs/${job}/import`);
  const { book } = (await result.json()) as { book: { id: string } };
  await page.goto(`/books/${book.id}/write`);
  await text(page).locator("h1").click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+c");
  await page.goto(`/books/${here}/write`);
  await expect(text(page)).toContainText("Low water");
  await text(page).getByText("Wait here.").click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+v");
  await expect(notes(page)).toHaveCount(2);
  await expect(notes(page).first()).toContainText("Sound time");
  const pictures = text(page).locator(".picture img");
  await expect(pictures).toHaveCount(2);
  for (const picture of await pictures.all()) {
    await expect(picture).toHaveAttribute("src", new RegExp(`/books/${here}/`));
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  }
  const files = `/api/books/${here}/files`;
  const names = async () =>
    ((await (await page.request.get(files)).json()) as { name: string; uses: number }[]).map(
      ({ name, uses }) => [name, uses],
    );
  await expect.poll(names).toEqual([["Plan №1.txt", 1]]);
});

test("other programs get the words of references, numbers of notes and lists that the page shows", async ({
  page,
}) => {
  await selectWords(page, "Wait here.");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.type(" See ");
  await page.keyboard.press("Alt+r");
  await page.keyboard.type("ways");
  await expect(page.getByRole("form", { name: "Cross-reference" }).getByRole("option").first()).toContainText(
    "Ways",
  );
  await page.keyboard.press("Enter");
  await expect(text(page).locator(".cross-reference")).toHaveText("Ways");
  const copied = await page.evaluateHandle(() => {
    const got: Record<string, string> = {};
    document.addEventListener("copy", ({ clipboardData }) => {
      for (const type of ["text/html", "text/plain"]) got[type] = clipboardData!.getData(type);
    });
    return got;
  });
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+c");
  const { "text/html": html, "text/plain": plain } = (await copied.jsonValue()) as Record<string, string>;
  expect(plain).toContain("The sands are bare by day.[1] Wait here. See Ways");
  expect(html).toMatch(/<sup [^>]*>1<\/sup>/);
  expect(html).toMatch(/<span data-reference[^>]*>Ways<\/span>/);
  // This editor makes them anew.
  await page.keyboard.press("Control+v");
  await expect(text(page).locator(".cross-reference")).toHaveText("Ways");
  await expect(signs(page)).toHaveCount(1);
});

test("pictures inside pasted text stand where they stood", async ({ page, quiet }) => {
  // Until they have come, they are asked for in vain.
  quiet.push("404", "415");
  const dot = `data:image/png;base64,${Buffer.from(redDot).toString("base64")}`;
  await text(page).getByText("Wait here.").click();
  await page.keyboard.press("End");
  await paste(page, {
    html: `<p>Before <img src="${dot}" alt="Post"> between <img src="data:image/png;base64,iVBORw0KGgo=" alt="Damaged"> <img src="${dot}" alt="Hut"> after.</p>`,
  });
  const pictures = text(page).locator(".picture img");
  for (const words of ["Post", "Hut"]) {
    const picture = text(page).locator(`.picture img[alt=${words}]`);
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  }
  await expect(pictures).toHaveCount(2);
  const order = await text(page)
    .locator("p", { hasText: "Before" })
    .evaluate((line) =>
      [...line.childNodes].map(
        (node) => node.textContent?.trim() || (node as HTMLElement).querySelector?.("img")?.alt,
      ),
    );
  expect(order.filter(Boolean).slice(-6)).toEqual([
    "Wait here.Before",
    "Post",
    "between",
    "Damaged",
    "Hut",
    "after.",
  ]);
});

test("pasted text comes without signs that no file can hold, and lines that such signs break stay lines", async ({
  page,
}) => {
  await text(page).getByText("Wait here.").click();
  await page.keyboard.press("End");
  await paste(page, { plain: " Low\vwater\u2028to\ufeffday" });
  await paste(page, { html: "<p><b>\ufeff</b>The \x93ebb\x94<i>\x07</i> turns.</p>" });
  await expect(text(page).locator("> p")).toHaveText([
    "The sands are bare by day. Wait here. Low",
    "water",
    "todayThe “ebb” turns.",
  ]);
  await saved(page);
});

test("plain text is pasted with the blanks at its ends, on which words before and behind it stand", async ({
  page,
}) => {
  await selectWords(page, "here");
  await paste(page, { plain: " two\thours " });
  await page.keyboard.type("or more");
  await expect(text(page).locator("> p")).toHaveText("The sands are bare by day. Wait  two hours or more.");
});
