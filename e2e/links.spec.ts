import { expect, openOwnBook, paste, saved, selectWords, test, text } from "./fixtures";

const markdown = `# Walks

The tide office knows the hours, and the [ferry](https://ferry.hesterley.example/timetable) waits for nobody.

Another **bold and plain** paragraph ends here.
`;

test.beforeEach(async ({ page }) => {
  await openOwnBook(page, markdown);
});

const line = (page: import("@playwright/test").Page) => page.getByRole("form", { name: "Link line" });
const card = (page: import("@playwright/test").Page, words: string) =>
  page.getByRole("button", { name: `Link “${words}”` });

test("the link line leaves all as it was by Esc, by leaving it, and for what is no address", async ({
  page,
}) => {
  const before = await text(page).innerText();
  for (const leave of [
    () => page.keyboard.press("Escape"),
    () => page.getByRole("heading", { name: "Chapters" }).click(),
  ]) {
    await selectWords(page, "tide office");
    await page.keyboard.press("Control+k");
    await line(page).getByLabel("Leads to").fill("https://tides.hesterley.example/");
    await leave();
    await expect(line(page)).toBeHidden();
  }
  await selectWords(page, "tide office");
  await page.getByRole("button", { name: "Link", exact: true }).click();
  for (const typed of ["javascript:alert(1)", "data:text/html,x", "the office", "C:\\plan.pdf", ""]) {
    await line(page).getByLabel("Leads to").fill(typed);
    await page.keyboard.press("Enter");
    await expect(line(page).getByLabel("Leads to")).toHaveAttribute("aria-invalid", "true");
  }
  await page.keyboard.press("Escape");
  expect(await text(page).innerText()).toBe(before);
  await expect(text(page).getByRole("link")).toHaveCount(1);
});

test("it mends what was typed and says so, and leaves out the blanks around the words", async ({ page }) => {
  await selectWords(page, " tide office ");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("<www.tides.hesterley.example>.");
  await expect(line(page)).toContainText("Mended:");
  await page.keyboard.press("Enter");
  await expect(text(page).getByRole("link", { name: "tide office", exact: true })).toHaveAttribute(
    "href",
    "https://www.tides.hesterley.example/",
  );
  expect(await text(page).locator("a").first().textContent()).toBe("tide office");
});

test("with nothing selected it asks for the words too", async ({ page }) => {
  await text(page).locator("p").last().click();
  await page.keyboard.press("End");
  await page.keyboard.press("Control+k");
  await line(page).getByLabel("Leads to").fill("https://tides.hesterley.example/");
  await page.keyboard.press("Enter");
  await expect(line(page)).toContainText("needs words");
  await line(page).getByLabel("Words").fill("See the office");
  await page.keyboard.press("Enter");
  await expect(text(page).getByRole("link", { name: "See the office" })).toBeVisible();
  await page.keyboard.type(" now");
  expect(await text(page).locator("a").last().textContent()).toBe("See the office");
});

test("a card changes the words, the destination, or takes the link away; undo brings each back", async ({
  page,
}) => {
  await card(page, "ferry").click();
  await page.getByLabel("Words").fill("morning ferry");
  await page.keyboard.press("Enter");
  const link = text(page).locator("a");
  await expect(link).toHaveText("morning ferry");
  await expect(link).toHaveAttribute("href", "https://ferry.hesterley.example/timetable");

  await page.getByLabel("Leads to").fill("javascript:alert(1)");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/cannot be a link/)).toBeVisible();
  await page.getByLabel("Leads to").fill("ferry.hesterley.example/winter");
  await page.keyboard.press("Enter");
  await expect(link).toHaveAttribute("href", "https://ferry.hesterley.example/winter");
  await expect(link).toHaveText("morning ferry");

  await page.getByRole("button", { name: "Remove link" }).click();
  await expect(link).toHaveCount(0);
  await expect(text(page)).toContainText("the morning ferry waits");
  await page.keyboard.press("Control+z");
  await expect(link).toHaveText("morning ferry");
  await page.keyboard.press("Control+z");
  await expect(link).toHaveAttribute("href", "https://ferry.hesterley.example/timetable");
  await saved(page);
});

test("the key opens a link's own destination again, and its id stays", async ({ page }) => {
  const id = await text(page).locator("a").getAttribute("data-link");
  await text(page).locator("a").click();
  await page.keyboard.press("Control+k");
  await expect(line(page).getByLabel("Leads to")).toHaveValue("https://ferry.hesterley.example/timetable");
  await line(page).getByLabel("Leads to").fill("https://ferry.hesterley.example/summer");
  await page.keyboard.press("Enter");
  await expect(text(page).locator("a")).toHaveAttribute("data-link", id!);
});

test("following shows the full address and asks first", async ({ page, context }) => {
  await text(page).locator("a").click();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("This leaves the book.")).toBeVisible();
  await expect(page.getByText("https://ferry.hesterley.example/timetable").first()).toBeVisible();
  const [window] = await Promise.all([
    context.waitForEvent("page"),
    page.getByRole("link", { name: "Open in a new tab" }).click(),
  ]);
  await expect(window.getByRole("heading")).toHaveText("Sound Ferries — timetable");
});

test("nothing is offered to open until the server has said who answers for the name", async ({
  page,
  context,
}) => {
  let say = () => {};
  const said = new Promise<void>((resolve) => (say = resolve));
  await page.route("**/api/health", async (route) => {
    await said;
    await route.continue();
  });
  await page.reload();
  await text(page).locator("a").click();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("This leaves the book.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Open in a new tab" })).toBeHidden();
  say();
  const [window] = await Promise.all([
    context.waitForEvent("page"),
    page.getByRole("link", { name: "Open in a new tab" }).click(),
  ]);
  await expect(window.getByRole("heading")).toHaveText("Sound Ferries — timetable");
});

test("an address pasted over words links them; pasted text brings safe links alone", async ({
  page,
  quiet,
}) => {
  // The policy refuses the pasted handler, and says so.
  quiet.push("inline event handler");
  await selectWords(page, "tide office");
  await paste(page, { plain: "https://tides.hesterley.example/hours" });
  await expect(text(page).getByRole("link", { name: "tide office" })).toHaveAttribute(
    "href",
    "https://tides.hesterley.example/hours",
  );

  await text(page).locator("p").last().click();
  await page.keyboard.press("End");
  await paste(page, {
    html: '<p>x <a href="https://maps.hesterley.example/a">map</a> <a href="javascript:alert(1)">bad</a> <a href="data:text/html,x">worse</a><img src=x onerror=alert(1)><script>alert(2)</script></p>',
  });
  await expect(text(page)).toContainText("map bad worse");
  await expect(text(page).getByRole("link", { name: "map" })).toHaveCount(1);
  expect(await text(page).locator("a").allTextContents()).toEqual(["tide office", "ferry", "map"]);
  // What could not be taken over is said in a line, and shown on asking.
  const notice = page.getByRole("status").filter({ hasText: "Not all of what you pasted" });
  await expect(notice).toContainText("Pictures (1), Links that a book cannot hold (2)");
  await notice.getByText("Not all of what you pasted").click();
  await expect(notice).toContainText("The link “bad” to javascript:alert(1)");
  await notice.getByRole("button", { name: "Close" }).click();
  await expect(notice).toBeHidden();
  await saved(page);
});

test("a pasted copy of a link gets an id of its own", async ({ page }) => {
  const html = await text(page)
    .locator("a")
    .evaluate((a) => a.outerHTML);
  await text(page).locator("p").last().click();
  await page.keyboard.press("End");
  await paste(page, { html });
  await expect(text(page).locator("a")).toHaveCount(2);
  const ids = await text(page)
    .locator("a")
    .evaluateAll((links) => links.map((a) => (a as HTMLElement).dataset["link"]));
  expect(new Set(ids).size).toBe(2);
});

test("one link over bold and plain words is one card; keys go from link to link", async ({ page }) => {
  await text(page).locator("p").last().click();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+End");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("https://maps.hesterley.example/");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("group", { name: "Margin cards" }).getByRole("button", { name: /^Link “/ }),
  ).toHaveCount(2);
  await page.keyboard.press("Alt+ArrowUp");
  await expect(card(page, "ferry")).toHaveAttribute("aria-expanded", "true");
  await page.keyboard.press("Alt+ArrowDown");
  await expect(card(page, "Another bold and plain paragraph ends here.")).toHaveAttribute(
    "aria-expanded",
    "true",
  );
});

test("no card covers another, with sixty links on one screen", async ({ page }) => {
  const links = Array.from({ length: 60 }, (_, i) => `[w${i}](https://stone-${i + 1}.hesterley.test/)`).join(
    " ",
  );
  await openOwnBook(page, `# Many\n\n${links}`);
  const cards = page.locator("[data-card]");
  await expect(cards).toHaveCount(60);
  await page.getByRole("button", { name: "Link “w30”" }).click();
  await expect(card(page, "w30")).toHaveAttribute("aria-expanded", "true");
  const covered = () =>
    cards.evaluateAll((all) => {
      const boxes = all.map((one) => one.getBoundingClientRect()).sort((a, b) => a.top - b.top);
      return boxes.filter(({ top }, i) => i > 0 && top < boxes[i - 1]!.bottom - 0.5).length;
    });
  await expect.poll(covered).toBe(0);
});

test("in a narrow window the link at the cursor has its card in a strip", async ({ page }) => {
  await page.setViewportSize({ width: 800, height: 800 });
  const strip = page.getByRole("group", { name: "Links" });
  await expect(strip).toContainText("1 link");
  await strip.getByRole("button", { name: "Next link" }).click();
  await expect(strip).toContainText("ferry.hesterley.example");
});
