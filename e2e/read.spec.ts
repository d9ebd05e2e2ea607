import AxeBuilder from "@axe-core/playwright";
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
  await expect(page.getByText("There is no PDF or e-book to read yet.")).toBeVisible();
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
  expect(await page.locator("iframe").evaluate(left)).toBe(680);
  await page.locator("iframe").evaluate((frame) => {
    (frame as HTMLIFrameElement).contentDocument!.documentElement.scrollLeft = 0;
  });
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
  await aside.getByRole("button", { name: "Stay here" }).click();
  await screen.getByRole("link", { name: "the office" }).click();
  await expect(aside).toContainText("Tap the link once more to open it.");
  await screen.getByRole("link", { name: "the office" }).click();
  await expect(aside.getByRole("link", { name: "Open in a new tab" })).toBeVisible();

  await page.getByRole("combobox", { name: /^Read/ }).selectOption("at night");
  const { violations } = await new AxeBuilder({ page }).exclude("iframe").setLegacyMode().analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);
});
