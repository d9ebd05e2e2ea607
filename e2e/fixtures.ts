import { test as base, expect, type Page } from "@playwright/test";
import { vennetOf } from "./start-services";

/** What every test has: the address of the tests' own Vennet, and a page that may not fail silently. */
export const test = base.extend<{ quiet: string[] }>({
  baseURL: async ({}, use, { parallelIndex }) => use(vennetOf(parallelIndex).address),
  // Errors in the browser, breaches of the content policy among them, fail the test; some are expected.
  quiet: [
    async ({ page }, use) => {
      const expected: string[] = [];
      const errors: string[] = [];
      page.on("pageerror", (error) => errors.push(error.message));
      page.on("console", (message) => {
        if (message.type() === "error") errors.push(message.text());
      });
      await use(expected);
      expect(errors.filter((error) => !expected.some((part) => error.includes(part)))).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** The Vennet that a test runs in, and how its server was started. */
export const vennet = () => vennetOf(test.info().parallelIndex);

export async function openDemo(page: Page): Promise<string> {
  await page.goto("/sign-in");
  await page.getByRole("button", { name: "Open the demo book" }).click();
  await page.getByRole("link", { name: "The Tidal Causeways of Hesterley Sound" }).click();
  await expect(page.getByRole("textbox", { name: "Text of the chapter" })).toBeVisible();
  return new URL(page.url()).pathname.split("/")[2]!;
}

/** Signs a new author up, and brings a manuscript in, over the interface that scripts use. */
export async function openOwnBook(page: Page, markdown: string): Promise<string> {
  const { request } = page;
  // A page of another account that is still open would ask on, and be refused.
  await page.goto("about:blank");
  const email = `author-${Math.random().toString(36).slice(2)}@authors.example`;
  await request.post("/api/accounts", {
    data: { name: "Pell Arrandine", email, password: "a long password" },
  });
  const brought = await request.post("/api/books/import", {
    multipart: { manuscript: { name: "walks.md", mimeType: "text/markdown", buffer: Buffer.from(markdown) } },
  });
  const { id } = (await brought.json()) as { id: string };
  // The events end when the job has.
  await request.get(`/api/jobs/${id}/events`);
  const result = await request.get(`/api/jobs/${id}/import`);
  const { book } = (await result.json()) as { book: { id: string } };
  await page.goto(`/books/${book.id}/write`);
  await expect(text(page)).toBeVisible();
  return book.id;
}

export const text = (page: Page) => page.getByRole("textbox", { name: "Text of the chapter" });
export const saved = (page: Page) => expect(page.getByText("Saved", { exact: true })).toBeVisible();

/**
 * Selects words in the text, by their first occurrence, and ends when the editor has heard of it and shows it. What is
 * selected while the editor still takes a text in is set back by it, so it is selected until it stays.
 */
export async function selectWords(page: Page, words: string): Promise<void> {
  await expect(async () => {
    await text(page).evaluate((root, wanted) => {
      const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
      let node = walker.nextNode();
      while (node && !node.textContent!.includes(wanted)) node = walker.nextNode();
      if (!node) throw new Error(`The text has no “${wanted}”.`);
      const at = node.textContent!.indexOf(wanted);
      (root as HTMLElement).focus();
      getSelection()!.setBaseAndExtent(node, at, node, at + wanted.length);
    }, words);
    // Longer than the editor takes to show its own selection after it got the focus.
    await page.waitForTimeout(100);
    const selected = await text(page).evaluate((root) =>
      root === document.activeElement ? getSelection()!.toString() : null,
    );
    expect(selected).toBe(words);
  }).toPass();
}

/** Says that a chapter that is being moved is at a place, as “2 of 4”, as it is said aloud. */
export const movedTo = (page: Page, title: string, place: string) =>
  expect(page.getByText(`“${title}” is at place ${place}.`)).toBeAttached();

/** Moves a chapter by one place with the keys, pressed one right after the other. */
export async function moveByKey(page: Page, title: string, key: "ArrowUp" | "ArrowDown"): Promise<void> {
  await page.getByRole("button", { name: `Move “${title}”` }).focus();
  await Promise.all(["Space", key, "Space"].map((pressed) => page.keyboard.press(pressed)));
}

/** Puts text or HTML on the clipboard's way into the editor, as a paste does. */
export async function paste(page: Page, content: { plain?: string; html?: string }): Promise<void> {
  await text(page).evaluate((root, { plain, html }) => {
    const data = new DataTransfer();
    if (plain) data.setData("text/plain", plain);
    if (html) data.setData("text/html", html);
    root.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, content);
}

/** Exports the book as PDF and as EPUB, and says what each proof came to. */
export async function proofs(
  page: Page,
  bookId: string,
): Promise<{ format: string; intact: number; total: number; extra: number }[]> {
  const made = [];
  for (const format of ["pdf", "epub"]) {
    const asked = await page.request.post(`/api/books/${bookId}/exports`, { data: { format } });
    const { id } = (await asked.json()) as { id: string };
    await page.request.get(`/api/jobs/${id}/events`);
    const listed = await page.request.get(`/api/books/${bookId}/exports`);
    const [{ intact, total, extra }] = (await listed.json()) as [
      { intact: number; total: number; extra: number },
    ];
    made.push({ format, intact, total, extra });
  }
  return made;
}
