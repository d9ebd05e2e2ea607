import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, openOwnBook, proofs, test } from "./fixtures";

const filler = "The stones lie bare for two hours on each side of low water. ".repeat(60);
const markdown = `# Tides

Ask [the office](https://tides.hesterley.example/notes "The tide office"), or go on to [the ways](#ways).

${filler}

# Ways

From here [back to the tides](#tides).
`;

test("the exported PDF is read as its readers will: jumps and back, and addresses told before they open", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, markdown);
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(page.getByText("There is no PDF, e-book or web page of the book yet.")).toBeVisible();
  expect((await proofs(page, bookId))[0]).toMatchObject({ format: "pdf", intact: 3 });
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("listitem").filter({ hasText: ".pdf" }).getByRole("link", { name: "Read" }).click();

  const number = page.getByLabel("Page", { exact: true });
  await expect(number).toHaveValue("1");
  await page
    .getByRole("navigation", { name: "Outline of the file" })
    .getByRole("button", { name: "Tides" })
    .click();
  await expect(number).toHaveValue("3");
  const sheet = page.getByRole("region", { name: "Page 3 of the file" });
  await expect(sheet).toContainText("Ask the office, or go on to the ways.");

  // Outside the file: the whole address first, and nothing is opened by itself.
  await sheet.getByRole("button", { name: "The tide office" }).click();
  const aside = page.getByRole("complementary", { name: "The link that was followed" });
  await expect(aside).toContainText("https://tides.hesterley.example/notes");
  const [opened] = await Promise.all([
    page.waitForEvent("popup"),
    aside.getByRole("link", { name: "Open in a new tab" }).click(),
  ]);
  await expect(opened.getByRole("heading", { name: "Hesterley Tide Office — notes" })).toBeVisible();
  await opened.close();

  // Inside: there at once, marked, and back to where it was.
  await sheet.getByRole("button", { name: "Ways" }).click();
  const landed = page.getByRole("region", { name: /Page [45] of the file/ });
  await expect(landed).toContainText("From here back to the tides.");
  await expect(page.getByTestId("landing")).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);
  await page.getByRole("button", { name: "Back", exact: true }).click();
  await expect(number).toHaveValue("3");
  await page.getByLabel("Outline the links").uncheck();
  await page.keyboard.press("Escape");
  await page.getByRole("region", { name: "Page 3 of the file" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(number).toHaveValue("4");
});

test("the exported e-book is read on a phone, a tablet and a grey screen that shows an address first", async ({
  page,
  quiet,
}) => {
  // The tests' own tools try to run in the frame, which lets no script run.
  quiet.push("Blocked script execution");
  const bookId = await openOwnBook(page, markdown);
  expect((await proofs(page, bookId))[1]).toMatchObject({ format: "epub", intact: 3 });
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("listitem").filter({ hasText: ".epub" }).getByRole("link", { name: "Read" }).click();
  const screen = page.frameLocator("iframe");
  await page
    .getByRole("navigation", { name: "Contents of the file" })
    .getByRole("button", { name: "Tides" })
    .click();
  await expect(screen.getByRole("heading", { name: "Tides" })).toBeInViewport();
  const screens = async (): Promise<number> =>
    Number(/of (\d+)/.exec((await page.getByText(/^Screen \d+ of/).textContent())!)![1]);
  const onPhone = await screens();
  expect(onPhone).toBeGreaterThan(2);

  // Turned by screens; a larger one needs fewer, and larger letters need more.
  await page.getByRole("button", { name: "Next screen" }).click();
  await expect(page.getByText(`Screen 2 of ${onPhone}`)).toBeVisible();
  await expect(screen.getByRole("heading", { name: "Tides" })).not.toBeInViewport();
  await page.getByRole("button", { name: "Screen before" }).click();
  await page.getByLabel("On a").selectOption("tablet");
  await expect.poll(screens).toBeLessThan(onPhone);
  const onTablet = await screens();
  await page.getByLabel("Letters").selectOption("150 %");
  await expect.poll(screens).toBeGreaterThan(onTablet);
  await page.getByLabel("Letters").selectOption("100 %");

  // Whatever the browser scrolls to, a whole screen is shown, and it is told which.
  await page.getByLabel("On a").selectOption("phone");
  await expect.poll(screens).toBe(onPhone);
  await page.locator("iframe").evaluate((frame) => {
    (frame as HTMLIFrameElement).contentDocument!.documentElement.scrollLeft = 340 * 2 - 20;
  });
  await expect(page.getByText(`Screen 3 of ${onPhone}`)).toBeVisible();
  const left = (frame: Element) => (frame as HTMLIFrameElement).contentDocument!.documentElement.scrollLeft;
  await expect.poll(() => page.locator("iframe").evaluate(left)).toBe(680);
  await page.locator("iframe").evaluate((frame) => {
    (frame as HTMLIFrameElement).contentDocument!.documentElement.scrollLeft = 0;
  });
  // A word that is longer than a line is broken, so that no link runs off the screen.
  const runsOff = await page.locator("iframe").evaluate((frame) => {
    const { body } = (frame as HTMLIFrameElement).contentDocument!;
    const one = body.ownerDocument.createElement("p");
    body.append(one);
    one.textContent = "causeway".repeat(20);
    const wide = one.scrollWidth > one.clientWidth;
    one.remove();
    return wide;
  });
  expect(runsOff).toBe(false);
  // A jump, and back to the exact screen.
  await screen.getByRole("link", { name: "the ways" }).click();
  await expect(screen.getByRole("heading", { name: "Ways" })).toBeInViewport();
  await page.getByRole("button", { name: "Back", exact: true }).click();
  await expect(screen.getByRole("link", { name: "the ways" })).toBeInViewport();

  // An address is told first; a grey screen tells it at the first tap, and asks at the second.
  const aside = page.getByRole("complementary", { name: "The link that was followed" });
  await screen.getByRole("link", { name: "the office" }).click();
  await expect(aside).toContainText("https://tides.hesterley.example/notes");
  await expect(aside.getByRole("link", { name: "Open in a new tab" })).toBeVisible();
  await page.getByLabel("On a").selectOption("grey screen");
  await aside.getByRole("button", { name: "Cancel" }).click();
  await screen.getByRole("link", { name: "the office" }).click();
  await expect(aside).toContainText("Tap the link once more to open it.");
  await screen.getByRole("link", { name: "the office" }).click();
  await expect(aside.getByRole("link", { name: "Open in a new tab" })).toBeVisible();

  await page.getByRole("combobox", { name: /^Read/ }).selectOption("at night");
  const { violations } = await new AxeBuilder({ page }).exclude("iframe").setLegacyMode().analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);
});

test("every link of each file is walked in its reader, and lands where the manuscript means it to", async ({
  page,
  quiet,
}) => {
  quiet.push("Blocked script execution");
  const bookId = await openOwnBook(page, markdown);
  await linkFile(page, bookId, "the plan");
  for (const format of ["pdf", "epub", "web"]) {
    await page.goto(`/books/${bookId}/read/${await exported(page, bookId, { format })}`);
    await page.getByRole("button", { name: "Walk the links" }).click();
    const walk = page.getByRole("complementary", { name: "The walk" });
    await walk.getByRole("button", { name: "One step" }).click();
    await expect(walk.getByText(/^1 of \d+ links walked, all as intended$/)).toBeVisible();
    await walk.getByRole("button", { name: "Walk on" }).click();
    await expect(walk.getByRole("button", { name: "Walk again" })).toBeVisible();
    const told = walk.getByText(/^(\d+) of \1 links walked, all as intended$/);
    await expect(told).toBeVisible();
    expect([format, Number.parseInt((await told.textContent())!) >= 4]).toEqual([format, true]);

    // Each step tells where it led; a jump has a picture of start and landing.
    const office = walk
      .getByRole("listitem")
      .filter({ has: page.getByRole("button", { name: "the office" }) });
    await expect(office).toContainText("https://tides.hesterley.example/notes");
    const plan = walk.getByRole("listitem").filter({ has: page.getByRole("button", { name: "the plan" }) });
    await expect(plan).toContainText("files/plan.csv");
    await expect(plan).not.toContainText("not there");
    const ways = walk.getByRole("listitem").filter({ has: page.getByRole("button", { name: "the ways" }) });
    await expect(ways).toContainText(": Ways");
    await expect(ways.getByRole("img", { name: "Where “the ways” lands" })).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).exclude("iframe").setLegacyMode().analyze();
    expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);
  }
  // What each came to is kept with its file.
  await page.goto(`/books/${bookId}/export`);
  await expect(page.getByText(/^\d+ links walked .*, all as intended$/)).toHaveCount(3);
});

test("a press that meets something else, and a link that its reader does not have, are steps that failed", async ({
  page,
  quiet,
}) => {
  quiet.push("Blocked script execution");
  const bookId = await openOwnBook(page, markdown);
  const id = await exported(page, bookId, { format: "web" });
  await page.route(`**/exports/${id}/file`, async (route) => {
    const answer = await route.fetch();
    const body = (await answer.text())
      .replace(
        /<a [^>]*>the office<\/a>/,
        '<span style="position:relative">$&<b style="position:absolute;inset:0">Over it</b></span>',
      )
      .replace(/<a [^>]*>(the ways)<\/a>/, "$1");
    await route.fulfill({ response: answer, body });
  });
  await page.goto(`/books/${bookId}/read/${id}`);
  await page.getByRole("button", { name: "Walk the links" }).click();
  const walk = page.getByRole("complementary", { name: "The walk" });
  await walk.getByRole("button", { name: "Walk", exact: true }).click();
  await expect(walk.getByText(/links walked, 2 not as intended/)).toBeVisible();
  await walk.getByLabel("Only what differs").check();
  await expect(walk.getByRole("listitem").filter({ hasText: "the office" })).toContainText(
    "Something else lies where it is pressed: “Over it”.",
  );
  await expect(walk.getByRole("listitem").filter({ hasText: "the ways" })).toContainText(
    "It cannot be pressed in this reader.",
  );
  await page.goto(`/books/${bookId}/export`);
  await expect(page.getByText(/^\d+ links walked .*, 2 not as intended$/)).toBeVisible();
});

test("a file whose link leads elsewhere than the manuscript means is told by the walk", async ({
  page,
  quiet,
}) => {
  quiet.push("Blocked script execution");
  const bookId = await openOwnBook(page, markdown);
  const id = await exported(page, bookId, { format: "web" });
  // The very bytes, with one address and one jump changed on their way to the reader.
  await page.route(`**/exports/${id}/file`, async (route) => {
    const answer = await route.fetch();
    const body = (await answer.text())
      .replace("https://tides.hesterley.example/notes", "https://tides.hesterley.example/nodes")
      .replace(/(<a [^>]*href=")#[^"]+("[^>]*>the ways)/, "$1#nowhere$2");
    await route.fulfill({ response: answer, body });
  });
  await page.goto(`/books/${bookId}/read/${id}`);
  await page.getByRole("button", { name: "Walk the links" }).click();
  const walk = page.getByRole("complementary", { name: "The walk" });
  await walk.getByRole("button", { name: "Walk", exact: true }).click();
  await expect(walk.getByText(/links walked, 2 not as intended/)).toBeVisible();
  await walk.getByLabel("Only what differs").check();
  await expect(walk.getByRole("listitem")).toHaveCount(2);
  await expect(walk.getByRole("listitem").first()).toContainText(
    "It should lead to https://tides.hesterley.example/notes.",
  );
  await expect(walk.getByRole("listitem").last()).toContainText("It leads nowhere in the file.");
});

test("what a reader gets is seen: the page, the mail filled in, and the way back to the exact place", async ({
  page,
  quiet,
}) => {
  quiet.push("Blocked script execution");
  const bookId = await openOwnBook(
    page,
    `# Tides\n\n${filler}\n\nAsk [the office](https://tides.hesterley.example/notes) or [the wardens](mailto:wardens@causeways.example?subject=Crossing%20today&body=We%20are%20four.).`,
  );
  const id = await exported(page, bookId, { format: "web" });
  await page.goto(`/books/${bookId}/read/${id}`);
  const sheet = page.frameLocator("iframe").first();
  await sheet.getByRole("link", { name: "the office" }).click();
  const scrolled = (): Promise<number> =>
    page
      .locator("iframe")
      .first()
      .evaluate((frame) => (frame as HTMLIFrameElement).contentDocument!.documentElement.scrollTop);
  const before = await scrolled();
  expect(before).toBeGreaterThan(100);
  await page.getByRole("button", { name: "See what a reader gets" }).click();
  const window = page.getByRole("dialog", { name: "The web page that a reader gets" });
  await expect(
    window.frameLocator("iframe").getByRole("heading", { name: "Hesterley Tide Office — notes" }),
  ).toBeVisible();
  await window.getByRole("button", { name: "Back to the book" }).click();
  await expect.poll(scrolled).toBe(before);
  await sheet.getByRole("link", { name: "the wardens" }).click();
  await page.getByRole("button", { name: "See what a reader gets" }).click();
  const mail = page.getByRole("dialog", { name: "The mail window that a reader gets" });
  await expect(mail).toContainText("wardens@causeways.example");
  await expect(mail).toContainText("Crossing today");
  await expect(mail.getByRole("region", { name: "The message" })).toHaveText("We are four.");
  const { violations } = await new AxeBuilder({ page }).include("[role=dialog]").setLegacyMode().analyze();
  expect(violations.map(({ id: rule, nodes }) => [rule, nodes[0]!.target])).toEqual([]);
  await page.keyboard.press("Escape");
  await expect(mail).toBeHidden();
});

/** Brings a companion file, and a link to it at the end of the first chapter, over the interface that scripts use. */
async function linkFile(page: Page, bookId: string, words: string): Promise<void> {
  const book = `/api/books/${bookId}`;
  const brought = await page.request.post(`${book}/files`, {
    multipart: { files: { name: "plan.csv", mimeType: "text/csv", buffer: Buffer.from("low,high\n9,3\n") } },
  });
  const { stored } = (await brought.json()) as { stored: [{ file: { id: string } }] };
  const [first] = (await (await page.request.get(`${book}/chapters`)).json()) as [{ id: string }];
  const chapter = (await (await page.request.get(`${book}/chapters/${first.id}`)).json()) as {
    revision: number;
    document: { content: unknown[] };
  };
  const destination = { kind: "file", file: stored[0].file.id };
  const link = { type: "link", attrs: { id: "toplan", destination, description: null } };
  chapter.document.content.push({
    type: "paragraph",
    content: [{ type: "text", text: words, marks: [link] }],
  });
  const { revision, document } = chapter;
  const saved = await page.request.put(`${book}/chapters/${first.id}`, { data: { revision, document } });
  expect(saved.status()).toBe(200);
}

/** Exports the book, and gives the export's id. */
async function exported(page: Page, bookId: string, options: Record<string, unknown>): Promise<string> {
  const asked = await page.request.post(`/api/books/${bookId}/exports`, { data: options });
  const job = (await asked.json()) as { id: string };
  await page.request.get(`/api/jobs/${job.id}/events`);
  const [newest] = (await (await page.request.get(`/api/books/${bookId}/exports`)).json()) as [
    { id: string },
  ];
  return newest.id;
}
