import type { Page } from "@playwright/test";
import { expect, movedTo, openOwnBook, test, text } from "./fixtures";

const count = 240;
const book = Array.from({ length: count }, (_, i) => `# Causeway ${i + 1}\n\nOver sand ${i + 1}.`).join(
  "\n\n",
);

/** What the server lists of a book. */
const listed = async <T>(page: Page, bookId: string, what: "chapters" | "places"): Promise<T[]> =>
  (await (await page.request.get(`/api/books/${bookId}/${what}`)).json()) as T[];
const chaptersOf = (page: Page, bookId: string) => listed<{ id: string }>(page, bookId, "chapters");

test("a list of hundreds of chapters shows the open one, and is worked on by key and by hand where it is seen", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, book);
  const chapters = await chaptersOf(page, bookId);
  await page.goto(`/books/${bookId}/write/${chapters[199]!.id}`);
  await expect(text(page)).toContainText("Over sand 200.");
  const list = page.getByRole("navigation", { name: "Chapters" });
  const row = (n: number) => list.locator(`[data-chapter="${chapters[n - 1]!.id}"]`);
  await expect(row(200)).toBeInViewport();
  await expect(list.getByRole("link")).toHaveCount(count + 1);
  // What is not on the screen has no more than its link.
  expect(await list.getByRole("button").count()).toBeLessThan(count);
  await expect(row(1).getByRole("button")).toHaveCount(0);

  // Who comes to a row by its link from elsewhere stays at it, and finds all else there.
  await row(1).getByRole("link").focus();
  await expect(row(1)).toBeInViewport();
  await expect(row(1).getByRole("link")).toBeFocused();
  await page.keyboard.press("Shift+Tab");
  await expect(row(1).getByRole("button", { name: "Move “Causeway 1”" })).toBeFocused();
  await page.keyboard.press("Space");
  for (let i = 0; i < 30; i++) await page.keyboard.press("ArrowDown");
  await movedTo(page, "Causeway 1", `31 of ${count}`);
  await expect(row(1)).toBeInViewport();
  await expect(row(1).getByRole("button", { name: "Move “Causeway 1”" })).toBeFocused();
  await page.keyboard.press("Space");
  await expect(page.getByText(`“Causeway 1” was set down at place 31 of ${count}.`)).toBeAttached();

  // Dragged to the lower edge, the list scrolls to rows that were not there when it was taken up.
  const first = (await row(30).getByRole("button", { name: "Move “Causeway 30”" }).boundingBox())!;
  const edges = (await list.boundingBox())!;
  await page.mouse.move(first.x + 8, first.y + 8);
  await page.mouse.down();
  await page.mouse.move(first.x + 8, first.y + 30, { steps: 4 });
  await page.mouse.move(first.x + 8, edges.y + edges.height - 12, { steps: 8 });
  await expect(row(80)).toBeInViewport();
  await page.mouse.move(first.x + 8, edges.y + edges.height / 2, { steps: 8 });
  const over = page.getByText(/“Causeway 30” is at place \d+ of/);
  await expect(over).toBeAttached();
  await page.mouse.up();
  const order = async (): Promise<string[]> => (await chaptersOf(page, bookId)).map(({ id }) => id);
  await expect.poll(async () => (await order()).indexOf(chapters[29]!.id)).toBeGreaterThan(60);
  const kept = await order();
  expect(kept.indexOf(chapters[0]!.id)).toBe(29);
  expect(kept.toSorted()).toEqual(chapters.map(({ id }) => id).toSorted());
  await expect
    .poll(() =>
      list
        .locator("[data-chapter]")
        .evaluateAll((rows) => rows.map((one) => (one as HTMLElement).dataset["chapter"])),
    )
    .toEqual(kept);
});

test("hundreds of places are listed from the open chapter on, and one that is being changed stays", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, book.replace("Over sand 200.", "<a id='slip'></a>Over sand 200."));
  const chapters = await chaptersOf(page, bookId);
  await page.goto(`/books/${bookId}/write/${chapters[198]!.id}`);
  await page.getByRole("radio", { name: "Places" }).click();
  const places = page.getByRole("navigation", { name: "Places" });
  const row = (name: string) => places.getByRole("listitem").filter({ hasText: name });
  await expect(row("Causeway 199")).toBeInViewport();
  // What follows it is seen, and not what is before.
  await expect(row("Causeway 209")).toBeInViewport();
  await expect(row("Causeway 199")).toHaveAttribute("aria-setsize", String(count + 1));
  await expect(row("Causeway 199")).toHaveAttribute("aria-posinset", "199");
  expect(await places.getByRole("listitem").count()).toBeLessThan(100);

  await places.getByRole("button", { name: /^Change the anchor/ }).click();
  await places.getByLabel("Name").fill("The slip at low water");
  await row("Causeway 199").hover();
  await page.mouse.wheel(0, -9_000);
  await expect(row("Causeway 1").first()).toBeInViewport();
  await expect(places.getByLabel("Name")).toHaveValue("The slip at low water");
  await places.getByLabel("Name").press("Enter");
  const named = async (): Promise<string[]> =>
    (await listed<{ text: string }>(page, bookId, "places")).map(({ text: name }) => name);
  await expect.poll(named).toContain("The slip at low water");
});
