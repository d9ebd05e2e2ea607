import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, moveByKey, movedTo, openOwnBook, saved, selectWords, test, text, vennet } from "./fixtures";
import { freePort } from "../launch/processes.mjs";

const markdown = "# One\n\nFirst text.\n\n# Two\n\nSecond text.\n\n# Three\n\nThird text.";

/** What the browser keeps of texts that the server does not have. */
const draftOf = (page: Page): Promise<string> =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open("vennet");
        opening.onerror = () => reject(opening.error!);
        opening.onsuccess = () => {
          const kept = opening.result.transaction("drafts").objectStore("drafts").getAll();
          kept.onerror = () => reject(kept.error!);
          kept.onsuccess = () => resolve(JSON.stringify(kept.result));
        };
      }),
  );

test("what is written while the server is away is kept over a reload, and sent when it is back", async ({
  page,
  quiet,
}) => {
  quiet.push("Failed to load resource", "ERR_CONNECTION");
  const { environment } = vennet();
  const port = String(await freePort());
  const start = async (): Promise<ChildProcess> => {
    const server = spawn(process.execPath, [join(import.meta.dirname, "../server/bundle/main.js")], {
      env: { ...environment, PORT: port },
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    await once(server, "message");
    return server;
  };
  const end = async (server: ChildProcess): Promise<void> => {
    server.kill("SIGTERM");
    await once(server, "exit");
  };
  let server = await start();
  const bookId = await openOwnBook(page, markdown);
  const cookies = await page.context().cookies();
  await page.context().addCookies(cookies.map((cookie) => ({ ...cookie, domain: "127.0.0.1" })));
  await page.goto(`http://127.0.0.1:${port}/books/${bookId}/write`);
  await text(page).locator("p").click();
  await page.keyboard.press("End");

  await end(server);
  await page.keyboard.type(" Written alone.");
  await expect(page.getByText("Server away: kept in this browser")).toBeVisible();
  await page.keyboard.type(" And more.");
  await expect.poll(() => draftOf(page)).toContain("And more.");

  // It comes back while this page is closed, so that nothing but the browser's own copy can bring the text.
  await page.goto("about:blank");
  server = await start();
  await page.goto(`http://127.0.0.1:${port}/books/${bookId}/write`);
  await expect(text(page)).toContainText("First text. Written alone. And more.");
  await saved(page);
  const chapters = (await (await page.request.get(`/api/books/${bookId}/chapters`)).json()) as {
    id: string;
  }[];
  const stored = await (await page.request.get(`/api/books/${bookId}/chapters/${chapters[0]!.id}`)).text();
  expect(stored).toContain("Written alone. And more.");

  // And without a reload, it is sent by itself.
  await end(server);
  await page.keyboard.press("Control+End");
  await text(page).locator("p").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" Again.");
  await expect(page.getByText("Server away: kept in this browser")).toBeVisible();
  server = await start();
  await saved(page);
  await end(server);
});

for (const [choice, expected] of [
  ["Written in this browser", ["First text. Mine."]],
  ["Saved from elsewhere", ["First text. Theirs."]],
  ["both", ["First text. Theirs.", "First text. Mine."]],
] as const) {
  test(`a chapter changed in two places shows both texts; ${choice} can be kept`, async ({
    page,
    context,
    quiet,
  }) => {
    quiet.push("409", "ERR_FAILED");
    // This window hears nothing of the other until it has written in the same paragraph.
    await page.route("**/chapters/events", (route) => route.abort());
    const bookId = await openOwnBook(page, markdown);
    const other = await context.newPage();
    await other.goto(page.url());
    await text(other).locator("p").click();
    await other.keyboard.press("End");
    await other.keyboard.type(" Theirs.");
    await saved(other);
    await text(page).locator("p").click();
    await page.keyboard.press("End");
    await page.keyboard.type(" Mine.");
    const mine = page.getByRole("region", { name: "Written in this browser", exact: true });
    const theirs = page.getByRole("region", { name: "Saved from elsewhere", exact: true });
    await expect(mine).toContainText("First text. Mine.");
    await expect(theirs).toContainText("First text. Theirs.");
    if (choice === "both") await page.getByRole("button", { name: /Keep both/ }).click();
    else
      await page
        .getByRole("region", { name: choice, exact: true })
        .getByRole("button", { name: "Go on with this text" })
        .click();
    await expect(text(page)).toContainText(expected[0]);
    await page.reload();
    await expect(text(page)).toContainText(expected[0]);
    const chapters = (await (await page.request.get(`/api/books/${bookId}/chapters`)).json()) as {
      id: string;
      title: string;
    }[];
    const texts = await Promise.all(
      chapters.map(async ({ id }) => (await page.request.get(`/api/books/${bookId}/chapters/${id}`)).text()),
    );
    for (const words of expected) expect(texts.filter((one) => one.includes(words))).toHaveLength(1);
    expect(chapters).toHaveLength(choice === "both" ? 4 : 3);
  });
}

/** The titles of a book's chapters as the server has them. */
async function titlesKept(page: Page, bookId: string): Promise<string[]> {
  const chapters = await (await page.request.get(`/api/books/${bookId}/chapters`)).json();
  return (chapters as { title: string }[]).map(({ title }) => title);
}

test("chapters are added, renamed, moved by key and by hand, deleted, and brought back", async ({ page }) => {
  await openOwnBook(page, markdown);
  const list = page.getByRole("navigation", { name: "Chapters" });
  const titles = async (): Promise<string[]> => await list.locator("a .font-serif").allTextContents();
  await list.getByRole("button", { name: "Add a chapter" }).click();
  await expect.poll(titles).toEqual(["One", "Two", "Three", "Chapter 4"]);
  await expect(text(page).getByRole("heading")).toHaveText("Chapter 4");

  // The open chapter is renamed in its text, another on the server.
  await list.getByRole("link", { name: /Chapter 4/ }).focus();
  await page.keyboard.press("F2");
  await list.getByLabel("Title of the chapter").fill("Four");
  await page.keyboard.press("Enter");
  await expect(text(page).getByRole("heading")).toHaveText("Four");
  await expect.poll(titles).toEqual(["One", "Two", "Three", "Four"]);
  await list.getByRole("link", { name: /Two/ }).focus();
  await page.keyboard.press("F2");
  await list.getByLabel("Title of the chapter").fill("Zwei");
  await page.keyboard.press("Enter");
  await expect.poll(titles).toEqual(["One", "Zwei", "Three", "Four"]);

  await moveByKey(page, "Zwei", "ArrowDown");
  await expect(page.getByText("“Zwei” was set down at place 3 of 4.")).toBeAttached();
  await expect.poll(titles).toEqual(["One", "Three", "Zwei", "Four"]);

  // What is held follows the keys, past no end, and stays where it was when its author goes elsewhere.
  const press = (...keys: string[]) => Promise.all(keys.map((key) => page.keyboard.press(key)));
  await page.getByRole("button", { name: "Move “Zwei”" }).focus();
  await press("Space", "ArrowUp", "ArrowUp", "ArrowUp", "ArrowUp", "ArrowDown");
  await movedTo(page, "Zwei", "2 of 4");
  expect(await titles()).toEqual(["One", "Zwei", "Three", "Four"]);
  await expect(page.getByRole("button", { name: "Move “Zwei”", pressed: true })).toBeFocused();
  await press("Escape");
  await expect(page.getByText("“Zwei” stays where it was.")).toBeAttached();
  expect(await titles()).toEqual(["One", "Three", "Zwei", "Four"]);
  await press("Space", "ArrowUp", "Tab");
  await expect.poll(titles).toEqual(["One", "Three", "Zwei", "Four"]);

  const from = (await list.getByRole("button", { name: "Move “Four”" }).boundingBox())!;
  const to = (await list.getByRole("button", { name: "Move “One”" }).boundingBox())!;
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 8, from.y - 20, { steps: 4 });
  await page.mouse.move(to.x + 8, to.y + 2, { steps: 8 });
  await movedTo(page, "Four", "1 of 4");
  await page.mouse.up();
  await expect.poll(titles).toEqual(["Four", "One", "Three", "Zwei"]);
  // What is shown at once is still on its way to the server.
  const bookId = page.url().split("/")[4]!;
  await expect.poll(() => titlesKept(page, bookId)).toEqual(["Four", "One", "Three", "Zwei"]);
  await page.reload();
  await expect.poll(titles).toEqual(["Four", "One", "Three", "Zwei"]);

  await list.getByRole("link", { name: /Three/ }).focus();
  await page.keyboard.press("Delete");
  await expect.poll(titles).toEqual(["Four", "One", "Zwei"]);
  await expect(page.getByText("“Three” was deleted.")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect.poll(titles).toEqual(["Four", "One", "Three", "Zwei"]);
});

test("what was asked for while a save was on its way is done though the page is left", async ({ page }) => {
  const bookId = await openOwnBook(page, markdown);
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  // The save has no answer as long as the page is there.
  await page.route(/\/chapters\/(?!order$)[^/]+$/, async (route) => {
    if (route.request().method() === "PUT") await held;
    await route.continue().catch(() => undefined);
  });
  await text(page).locator("p").first().click();
  const save = page.waitForRequest((request) => request.method() === "PUT");
  await page.keyboard.type("More. ");
  await save;
  await moveByKey(page, "Two", "ArrowDown");
  await expect(page.getByText("“Two” was set down at place 3 of 3.")).toBeAttached();
  await page.goto("about:blank");
  letGo();
  await expect.poll(() => titlesKept(page, bookId)).toEqual(["One", "Three", "Two"]);
});

test("the tools of the text make what the book can hold, and it comes back after a reload", async ({
  page,
}) => {
  await openOwnBook(page, "# One\n\nalpha\n\nbeta\n\ngamma");
  const tools = page.getByRole("toolbar", { name: "Text tools" });
  const p = (words: string) => text(page).getByText(words, { exact: true });
  await p("alpha").click();
  await tools.getByLabel("Kind of paragraph").selectOption("Heading 3");
  await selectWords(page, "beta");
  await tools.getByRole("button", { name: "Bold" }).click();
  await expect(tools.getByRole("button", { name: "Bold" })).toHaveAttribute("aria-pressed", "true");
  await tools.getByRole("button", { name: "Bulleted list" }).click();
  await p("gamma").click();
  await page.keyboard.press("End");
  await tools.getByRole("button", { name: "Note" }).click();
  await page.keyboard.type("What the note says.");
  await p("gamma").click();
  await page.keyboard.press("Home");
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowUp");
  await tools.getByRole("button", { name: "Table" }).click();
  await text(page).locator("th").first().click();
  await page.keyboard.type("Head");
  await page.getByRole("button", { name: "Row below" }).click();
  await saved(page);
  await page.reload();
  await expect(text(page).locator("h4")).toHaveText("alpha");
  await expect(text(page).locator("ul strong")).toHaveText("beta");
  await expect(text(page).locator("tr")).toHaveCount(4);
  await expect(text(page).locator("th").first()).toHaveText("Head");
  await expect(text(page).locator("aside")).toContainText("What the note says.");
  await expect(text(page).locator("sup")).toHaveAttribute("data-number", "1");
});

test("a picture is brought, asks for its words, and stays", async ({ page, quiet }) => {
  quiet.push("415");
  await openOwnBook(page, "# One\n\nalpha");
  await text(page).locator("p").click();
  await page
    .getByLabel("Picture file")
    .setInputFiles(join(import.meta.dirname, "../demo/manuscript/pictures/monks-path.png"));
  const picture = text(page).locator(".picture img");
  await expect(picture).toBeVisible();
  await picture.click();
  await page.getByLabel("Text alternative: what the picture shows").fill("Sketch map");
  await saved(page);
  await page.reload();
  await expect(text(page).getByRole("img", { name: "Sketch map" })).toBeVisible();
  await page
    .getByLabel("Picture file")
    .setInputFiles({ name: "fake.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
  await expect(page.getByRole("alert")).toContainText("is not a picture that a book can show");
});

test("keys take a paragraph down through the headings and back up, and make code", async ({ page }) => {
  await openOwnBook(page, "# One\n\nalpha beta");
  const kind = page.getByRole("toolbar", { name: "Text tools" }).getByLabel("Kind of paragraph");
  await text(page).locator("p").click();
  for (const level of ["1", "2", "3", "4", "4"]) {
    await page.keyboard.press("Alt+.");
    await expect(kind).toHaveValue(level);
  }
  for (const level of ["3", "2", "1", "text", "text"]) {
    await page.keyboard.press("Alt+,");
    await expect(kind).toHaveValue(level);
  }
  await selectWords(page, "beta");
  await page.keyboard.press("Alt+c");
  await expect(text(page).locator("code")).toHaveText("beta");
});

test("the key to the next cell makes a row behind the last one", async ({ page }) => {
  await openOwnBook(page, "# Tides\n\n| Way | Hours |\n| --- | --- |\n| North | two |\n\nLow water.");
  const cells = text(page).getByRole("cell");
  await cells.filter({ hasText: "North" }).click();
  await page.keyboard.press("End");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await page.keyboard.type("South");
  await expect(cells).toHaveText(["North", "two", "South", ""]);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Shift+Tab");
  await page.keyboard.press("Shift+Tab");
  await page.keyboard.type("in ");
  await expect(cells).toHaveText(["North", "in ", "South", ""]);
  await saved(page);
});

test("the list of keys opens by its key where no text is written, and nowhere else", async ({ page }) => {
  await openOwnBook(page, "# One\n\nalpha");
  await text(page).locator("p").click();
  await page.keyboard.press("End");
  await page.keyboard.type("?");
  await expect(text(page)).toContainText("alpha?");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.getByRole("link", { name: "Checks" }).focus();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("Open the link line");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});

test("a save of words alone asks for no link or place again, one of a link does", async ({ page }) => {
  await openOwnBook(
    page,
    `# One\n\n${"So many words. ".repeat(20)}\n\nSee [the tides](https://tides.hesterley.example/) here.`,
  );
  await saved(page);
  const asked: string[] = [];
  page.on("request", (request) => asked.push(request.url().replace(/^.*\/api\/books\/[^/]+/, "")));
  const saves = (): number => asked.filter((path) => /^\/chapters\/[\w-]+$/.test(path)).length;
  const others = (): string[] => asked.filter((path) => /places|destinations|surroundings/.test(path));
  await text(page).locator("p").first().click();
  await page.keyboard.press("End");
  await page.keyboard.type("And more");
  await expect.poll(saves).toBe(1);
  await saved(page);
  await expect.poll(() => asked).toContain("/chapters");
  expect(others()).toEqual([]);
  await selectWords(page, "here");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://ferry.hesterley.example/");
  await page.keyboard.press("Enter");
  await expect.poll(others).toContainEqual(expect.stringContaining("destinations"));
});
