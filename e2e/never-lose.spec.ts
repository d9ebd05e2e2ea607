import { expect, openOwnBook, paste, proofs, saved, selectWords, test, text } from "./fixtures";
import { violations } from "./violations";

test("linked words and whole texts are replaced by what is typed over them", async ({ page }) => {
  await openOwnBook(
    page,
    "# Tides\n\nAsk [the office](https://tides.example/) or [the pilot](https://pilot.example/).\n\nLow water.",
  );
  await selectWords(page, "the office");
  await page.keyboard.type("those who know");
  await expect(text(page)).toContainText("Ask those who know or the pilot.");
  // Whoever writes its words anew keeps the link; whoever deletes them does not.
  await expect(text(page).getByRole("link", { name: "those who know", exact: true })).toBeVisible();
  await selectWords(page, "know");
  await paste(page, { plain: "can tell" });
  await expect(text(page).getByRole("link", { name: "those who can tell", exact: true })).toBeVisible();
  await selectWords(page, "the pilot");
  await page.keyboard.press("Backspace");
  await page.keyboard.type("x");
  await expect(text(page).getByRole("link")).toHaveCount(1);
  await text(page).getByText("Low water.").click();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("All is new.");
  await expect(text(page)).toHaveText("All is new.");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Delete");
  await page.keyboard.type("Again.");
  await expect(text(page)).toHaveText("Again.");
  await saved(page);
});

test("a heading keeps its id through levels, paragraphs and pasting over, and its links lead there", async ({
  page,
}) => {
  const bookId = await openOwnBook(
    page,
    "# Tides\n\nSee [low water](#low-water).\n\n## Low water\n\nWade.\n\n## High water\n\nWait.",
  );
  const kind = page.getByLabel("Kind of paragraph");
  await text(page).getByRole("heading", { name: "Low water" }).click();
  await kind.selectOption("Heading 3");
  await kind.selectOption("Paragraph");
  await kind.selectOption("Heading 2");
  // All of it, as another program gives it back: without ids.
  await text(page).getByText("Wade.").click();
  await page.keyboard.press("Control+a");
  await paste(page, {
    html: '<p>See <a href="https://tides.example/">the tables</a>.</p><h3>Low water</h3><p>Wade slowly.</p>',
  });
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+a");
  await text(page).evaluate((root) => {
    const data = new DataTransfer();
    const copy = new ClipboardEvent("copy", { clipboardData: data, bubbles: true, cancelable: true });
    root.dispatchEvent(copy);
    root.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(text(page)).toContainText("Wait.");
  await saved(page);
  expect(await proofs(page, bookId)).toEqual(
    ["pdf", "epub"].map((format) => ({ format, intact: 1, total: 1, extra: 0 })),
  );
});

test("the focus goes where the author goes on, and comes back to the cursor", async ({ page }) => {
  await openOwnBook(
    page,
    "# Tides\n\nAsk [the office](https://tides.example/) or see [low water](#low-water).\n\n## Low water\n\nWade slowly. The office opens at eight.",
  );
  // Following: the next key is for the panel, never for the linked words.
  await selectWords(page, "the office");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("link", { name: "Open in a new tab" })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(text(page)).toBeFocused();
  await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toBe("the office");

  // An anchor: what is typed is its name, and then the text goes on.
  await selectWords(page, "slowly");
  await page.keyboard.press("Alt+a");
  await page.keyboard.type("Wading");
  await expect(page.getByLabel(/^Name of the anchor/)).toHaveValue("Wading");
  await page.keyboard.press("Enter");
  await expect(text(page)).toBeFocused();
  await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toBe("slowly");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.type(" now");
  await expect(text(page)).toContainText("Wade slowly now. The office");

  // Every mention: two actions, and back to where it was begun.
  await text(page).getByRole("link", { name: "the office" }).click();
  await page.getByRole("button", { name: "Link every mention" }).click();
  await expect(page.getByLabel("Words to look for")).toBeFocused();
  await expect(page.getByRole("button", { name: "Link 1 mention" })).toBeEnabled();
  await page.keyboard.press("Escape");
  await expect(text(page)).toBeFocused();

  // Places: renaming returns to the row; deleting goes to the row beside.
  await page.getByRole("radio", { name: "Chapters" }).focus();
  // A key is held for a moment, as fingers do.
  await page.keyboard.press("ArrowRight", { delay: 80 });
  await expect(page.getByRole("radio", { name: "Places" })).toBeChecked();
  const places = page.getByRole("navigation", { name: "Places" });
  await places.getByRole("button", { name: "Change the anchor “Wading”" }).click();
  await page.keyboard.type("!");
  await page.keyboard.press("Escape");
  await expect(places.getByRole("button", { name: "Change the anchor “Wading”" })).toBeFocused();
});

test("a blank in a host is told, and no address is made of it", async ({ page }) => {
  await openOwnBook(page, "# Tides\n\nAsk the office.");
  await selectWords(page, "the office");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://a b.example/");
  await page.keyboard.press("Enter");
  await expect(page.getByText("“https://a b.example/” is not a web address.")).toBeVisible();
});

test("two windows on one chapter take over what the other wrote, paragraph by paragraph", async ({
  page,
  quiet,
}) => {
  // The network that is away, and the old revisions that are refused.
  quiet.push("ERR_INTERNET_DISCONNECTED", "409");
  await openOwnBook(page, "# Tides\n\nFirst.\n\nSecond.\n\nThird.");
  const other = await page.context().newPage();
  await other.goto(page.url());
  await expect(text(other)).toContainText("Third.");

  // An untouched window takes over by itself.
  await text(page).getByText("First.").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" And more.");
  await expect(text(other)).toContainText("First. And more.");

  // Both write, each in a paragraph of its own, while neither has heard of the other.
  await page.context().setOffline(true);
  await text(page).getByText("Third.").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" From here.");
  await text(other).getByText("Second.").click();
  await other.keyboard.press("End");
  await other.keyboard.type(" From there.");
  await page.context().setOffline(false);
  const whole = ["First. And more.", "Second. From there.", "Third. From here."];
  for (const window of [page, other]) await expect(text(window).locator("p")).toHaveText(whole);

  // The same paragraph by both is for the author to choose from.
  await page.context().setOffline(true);
  await page.keyboard.type(" Mine.");
  await text(other).getByText("Third.").click();
  await other.keyboard.press("End");
  await other.keyboard.type(" Yours.");
  await page.context().setOffline(false);
  const asked = async (): Promise<number> => {
    const counts = [page, other].map((window) => window.getByText("Choose the one to go on with").count());
    return (await Promise.all(counts)).reduce((sum, count) => sum + count);
  };
  await expect.poll(asked).toBe(1);
});

test("files that are dropped on the text are shown or linked, all of them", async ({ page }) => {
  await openOwnBook(page, "# Tides\n\nSee the plans:");
  const png =
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==";
  const place = (await text(page).getByText("See the plans:").boundingBox())!;
  await text(page).evaluate(
    (root, { picture, x, y }) => {
      const data = new DataTransfer();
      data.items.add(new File(["low,high\n"], "tables.csv", { type: "text/csv" }));
      data.items.add(new File(["by foot"], "ways.txt", { type: "text/plain" }));
      const bytes = Uint8Array.from(atob(picture), (letter) => letter.charCodeAt(0));
      data.items.add(new File([bytes], "dot.png", { type: "image/png" }));
      root.dispatchEvent(
        new DragEvent("drop", {
          dataTransfer: data,
          clientX: x,
          clientY: y,
          bubbles: true,
          cancelable: true,
        }),
      );
    },
    { picture: png, x: place.x + place.width - 1, y: place.y + place.height / 2 },
  );
  await expect(text(page).getByRole("link", { name: "tables.csv" })).toBeVisible();
  await expect(text(page).getByRole("link", { name: "ways.txt" })).toBeVisible();
  await expect(text(page).locator("img:not(.ProseMirror-separator)")).toHaveCount(1);
  await saved(page);
});

test("what is done outside the text is done with the text as it is seen, however soon", async ({ page }) => {
  await openOwnBook(page, "# Tides\n\nWade slowly.");
  await selectWords(page, "slowly");
  await page.keyboard.press("Alt+a");
  await page.keyboard.type("Wading");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("radio", { name: "Places" }).click();
  await page.getByRole("button", { name: "Change the anchor “Wading”" }).click();
  const name = page.getByRole("navigation", { name: "Places" }).getByLabel("Name");
  await name.fill("Wading places");
  // Unsaved words, and the action at once.
  await text(page).getByText("Wade slowly.").click();
  await page.keyboard.press("Home");
  await page.keyboard.type("Now ");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(page.getByRole("button", { name: "Change the anchor “Wading places”" })).toBeVisible();
  await expect(text(page)).toContainText("Now Wade slowly.");
  await saved(page);
  await expect(page.getByText("Choose the one to go on with")).toHaveCount(0);
});

test("one key takes a link away, and one each goes to the chapter after and before", async ({ page }) => {
  await openOwnBook(page, "# One\n\nAsk [the office](https://tides.example/).\n\n# Two\n\nSecond.");
  await text(page).getByRole("link", { name: "the office" }).click();
  await page.keyboard.press("Alt+x");
  await expect(text(page).getByRole("link")).toHaveCount(0);
  await expect(text(page)).toContainText("Ask the office.");
  await page.keyboard.press("Control+z");
  await expect(text(page).getByRole("link", { name: "the office" })).toBeVisible();
  await page.keyboard.press("Alt+PageDown");
  await expect(text(page)).toContainText("Second.");
  await expect(text(page)).toBeFocused();
  await page.keyboard.type("Chapter ");
  await expect(text(page).getByRole("heading")).toHaveText("Chapter Two");
  await page.keyboard.press("Alt+PageUp");
  await expect(text(page)).toContainText("Ask the office.");
});

test("a place that goes while links lead there is told at once, by its name, with the way to those links", async ({
  page,
}) => {
  await openOwnBook(
    page,
    "# Tides\n\nSee [it](#low-water) and [them](#ways).\n\n## Low water\n\nWade.\n\n# Ways\n\nBy foot.",
  );
  await selectWords(page, "Low water");
  await page.keyboard.press("Backspace");
  await page.keyboard.press("Backspace");
  const notice = page.getByText("“Low water” is deleted, and links still lead there.");
  await expect(notice).toBeVisible();
  await text(page).getByRole("link", { name: "it", exact: true }).click();
  await expect(page.getByRole("button", { name: "Link “it” to Low water (deleted)" })).toBeVisible();
  // What was taken out and put back has its links again.
  await text(page).getByText("Wade.").click();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(notice).toHaveCount(0);

  await page.getByRole("button", { name: "Delete “Ways”" }).click();
  await expect(page.getByText("“Ways” was deleted. Links still lead to “Ways” in it.")).toBeVisible();
  // With where to lead them instead.
  const ways = page
    .getByRole("listitem")
    .filter({ hasText: "“Ways” is deleted, and links still lead there." });
  await ways.getByLabel("Lead them to").selectOption({ label: "Tides (Tides)" });
  await ways.getByRole("button", { name: "Apply" }).click();
  await expect(ways).toHaveCount(0);
});

test("what was filled into the link line is offered again, unless it was given up", async ({ page }) => {
  await openOwnBook(page, "# Tides\n\nAsk the office, or the pilot.");
  const line = page.getByRole("form", { name: "Link line" });
  await selectWords(page, "the office");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://tides.example/hours");
  // A press beside it.
  await text(page)
    .getByText("Ask the office")
    .click({ position: { x: 4, y: 8 } });
  await expect(line).toHaveCount(0);
  await expect(text(page).getByRole("link")).toHaveCount(0);

  await selectWords(page, "the office");
  await page.keyboard.press("Control+k");
  await expect(line).toContainText("You had begun: https://tides.example/hours");
  await line.getByRole("button", { name: "Use it" }).click();
  await line.getByRole("button", { name: "Link", exact: true }).click();
  await expect(text(page).getByRole("link", { name: "the office" })).toBeVisible();

  await selectWords(page, "the pilot");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://pilot.example/");
  await page.keyboard.press("Escape");
  await selectWords(page, "the pilot");
  await page.keyboard.press("Control+k");
  await expect(line).toBeVisible();
  await expect(line.getByText("You had begun")).toHaveCount(0);
});

test("links to a place that is gone are led to another from the notice, and back", async ({ page }) => {
  await openOwnBook(
    page,
    "# Tides\n\nSee [it](#low-water).\n\n## Low water\n\nWade.\n\n## High water\n\nWait.",
  );
  await selectWords(page, "Low water");
  await page.keyboard.press("Backspace");
  await page.keyboard.press("Backspace");
  const notice = page.getByText("“Low water” is deleted, and links still lead there.");
  await expect(notice).toBeVisible();
  await page.getByLabel("Lead them to").selectOption({ label: "High water (Tides)" });
  await page.getByRole("listitem").filter({ has: notice }).getByRole("button", { name: "Apply" }).click();
  await expect(notice).toHaveCount(0);
  await expect(page.getByRole("button", { name: /^Link “it” to High water/ })).toBeVisible();
  await text(page).focus();
  await page.keyboard.press("Control+z");
  await expect(notice).toBeVisible();
});

test("what was filled into a card and not applied is offered there again", async ({ page }) => {
  await openOwnBook(
    page,
    "# Tides\n\nSee [it](https://tides.hesterley.example/) and [more](https://a.example/).",
  );
  await text(page).getByRole("link", { name: "it", exact: true }).click();
  await page.getByLabel("Description").fill("Hours of low water");
  await text(page).getByRole("link", { name: "more" }).click();
  await expect(page.getByText("You had begun to change it.")).toHaveCount(0);
  await text(page).getByRole("link", { name: "it", exact: true }).click();
  await page.getByRole("button", { name: "Use it" }).click();
  await expect(page.getByLabel("Description")).toHaveValue("Hours of low water");
  // All at once, so that the card of the changed link may stand there before that of the old one has gone.
  const middles = await Promise.all(
    [
      page.getByRole("button", { name: "Apply", exact: true }),
      text(page).getByRole("link", { name: "more" }),
      text(page).getByRole("link", { name: "it", exact: true }),
    ].map(async (one) => {
      const { x, y, width, height } = (await one.boundingBox())!;
      return [x + width / 2, y + height / 2] as const;
    }),
  );
  await Promise.all(middles.map(([x, y]) => page.mouse.click(x, y)));
  await expect(page.getByLabel("Description")).toHaveValue("Hours of low water");
  await expect(page.getByText("You had begun to change it.")).toHaveCount(0);
});

test("a page that fails says so, with what went wrong and the ways on", async ({ page, quiet }) => {
  quiet.push(
    "Failed to load resource",
    "Failed to fetch dynamically imported module",
    "Error handled by React Router",
  );
  const bookId = await openOwnBook(page, "# Walks\n\nLow water is at nine.");
  await page.route("**/assets/files-page*", (route) => route.abort());
  await page.goto(`/books/${bookId}/links/files`);
  await expect(page.getByRole("heading", { name: "This page cannot be shown" })).toBeVisible();
  await expect(page.getByRole("alert")).toContainText("files-page");
  expect(await violations(page)).toEqual([]);
  await page.unroute("**/assets/files-page*");
  await page.getByRole("button", { name: "Open it again" }).click();
  await expect(page.getByRole("heading", { name: "Companion files" })).toBeVisible();
});
