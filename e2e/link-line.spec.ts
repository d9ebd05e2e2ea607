import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, openOwnBook, saved, selectWords, test, text } from "./fixtures";
import { violations } from "./violations";

const markdown = `# Walks

The tide office knows the hours. Take the plan of R1, and write to the wardens. See https://maps.hesterley.example/sheets too.

## Low water

It is at nine.
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});

type Page = import("@playwright/test").Page;
const line = (page: Page) => page.getByRole("form", { name: "Link line" });
const leadsTo = (page: Page) => line(page).getByRole("combobox", { name: "Leads to" });
const open = async (page: Page, words: string) => {
  await selectWords(page, words);
  await page.keyboard.press("Control+k");
  await expect(leadsTo(page)).toBeFocused();
};
/** Our leaflet as a companion file, “huts.pdf”. */
const bringLeaflet = async (page: Page) => {
  const leaflet = readFileSync(
    join(import.meta.dirname, "../web/public/examples/huts-of-the-outer-sands.pdf"),
  );
  await page.request.post(`/api/books/${bookId}/files`, {
    multipart: { file: { name: "huts.pdf", mimeType: "application/pdf", buffer: leaflet } },
  });
  await page.reload();
  await expect(text(page)).toBeVisible();
};
const card = (page: Page, words: string) => page.getByRole("button", { name: `Link “${words}”` });

test("an email with subject, copies and first lines is written, previewed, and read back", async ({
  page,
  context,
}) => {
  await open(page, "wardens");
  await page.keyboard.type("wardens@causeways.example, second@causeways.example");
  await line(page).getByLabel("Subject").fill("Crossing & tide");
  await line(page).getByLabel("Copy to", { exact: true }).fill("orla@tindrum.example, nonsense");
  await expect(line(page)).toContainText("Not an email address: nonsense");
  await line(page).getByLabel("Begins with").fill("Good day,\nwe set out at nine.");
  await expect(line(page).getByLabel("What the reader’s mail opens with")).toContainText("Crossing & tide");
  const [mail] = await Promise.all([
    context.waitForEvent("page"),
    line(page).getByRole("link", { name: "See it in the stand-in mail" }).click(),
  ]);
  await expect(mail.getByRole("row", { name: /^To/ })).toContainText(
    "wardens@causeways.example, second@causeways.example",
  );
  await expect(mail.getByRole("row", { name: "Subject" })).toContainText("Crossing & tide");
  await expect(mail.locator("pre")).toHaveText("Good day,\nwe set out at nine.");
  await mail.close();
  await line(page).getByRole("button", { name: "Link", exact: true }).click();
  await expect(text(page).getByRole("link", { name: "wardens" })).toHaveAttribute(
    "href",
    "mailto:wardens@causeways.example,second@causeways.example?cc=orla@tindrum.example&subject=Crossing%20%26%20tide&body=Good%20day%2C%0D%0Awe%20set%20out%20at%20nine.",
  );
  await text(page).getByRole("link", { name: "wardens" }).click();
  await page.keyboard.press("Control+k");
  await expect(line(page).getByLabel("Subject")).toHaveValue("Crossing & tide");
  await expect(line(page).getByLabel("Begins with")).toHaveValue("Good day,\nwe set out at nine.");
});

test("whatever signs are typed, what the book calls so is offered", async ({ page }) => {
  await open(page, "tide office");
  for (const typed of ["low-water", "a+b (c)", "[x] {y} \\ ^$|?*", "50 %–60 % bare"]) {
    await leadsTo(page).fill(typed);
    await expect(line(page).getByRole("option", { name: `Make a page called ${typed}` })).toBeVisible();
  }
  await leadsTo(page).fill("It is at nine.");
  await expect(
    line(page)
      .getByRole("option", { name: /It is at nine/ })
      .first(),
  ).toBeVisible();
});

test("a file is brought in on the line, found by part of its name afterwards, and follows its renaming", async ({
  page,
  quiet,
}) => {
  // Deleting a used file is refused.
  quiet.push("409");
  await open(page, "plan");
  await page.keyboard.type("C:\\book\\R1 plan.txt");
  await expect(line(page)).toContainText("your own disk");
  await page.keyboard.press("Enter");
  await expect(line(page)).toBeVisible();
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("option", { name: /Bring a file in/ }).click();
  await (
    await chooser
  ).setFiles({ name: "R1 plan.txt", mimeType: "text/plain", buffer: Buffer.from("Refuge box R1") });
  await expect(line(page)).toBeHidden();
  await expect(card(page, "plan")).toContainText("R1 plan.txt");

  await open(page, "R1");
  await page.keyboard.type("r1 pl");
  await expect(line(page).getByRole("option").first()).toContainText("R1 plan.txt");
  await page.keyboard.press("Enter");
  await expect(text(page).getByRole("link")).toHaveText(["plan", "R1", /maps/]);
  await saved(page);

  await page.goto(`/books/${bookId}/links/files`);
  await page.getByRole("button", { name: "Rename" }).click();
  await page.getByLabel("New name of R1 plan.txt").fill("Refuge plan.txt");
  await page.keyboard.press("Enter");
  await expect(page.getByText("2 links lead here")).toBeVisible();
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("2 links lead to this file");
  await page.getByRole("link", { name: "Write" }).click();
  await expect(card(page, "plan")).toContainText("Refuge plan.txt");
});

test("a file dropped on the line is brought in and linked", async ({ page }) => {
  await open(page, "plan");
  await line(page).evaluate((form) => {
    const data = new DataTransfer();
    data.items.add(new File(["words"], "dropped.txt", { type: "text/plain" }));
    form.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }));
  });
  await expect(card(page, "plan")).toContainText("dropped.txt");
});

test("a shared file is found with who may open it, and a heading by its words", async ({ page }) => {
  await open(page, "plan");
  await page.keyboard.type("R5 refuge");
  await expect(line(page).getByRole("option").first()).toContainText("Causeway wardens may open it");
  await page.keyboard.press("Enter");
  await expect(text(page).getByRole("link", { name: "plan" })).toHaveAttribute(
    "href",
    "https://drive.hesterley.example/s/refuge-r5",
  );
  await open(page, "hours");
  await page.keyboard.type("low wa");
  await page.keyboard.press("Enter");
  await expect(card(page, "hours")).toContainText("Low water");
  await card(page, "hours").click();
  await page.getByRole("button", { name: "Follow" }).click();
  await page.getByRole("button", { name: "Go there" }).click();
  await page.keyboard.type("!");
  await expect(text(page).getByRole("heading", { name: "!Low water" })).toBeVisible();
});

test("a page is made and linked in one step; while it has no words its links have a finding", async ({
  page,
}) => {
  await open(page, "tide office");
  await page.keyboard.type("Packing list");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "is made and linked" })).toBeVisible();
  await expect(card(page, "tide office")).toContainText("Packing list");
  await expect(card(page, "tide office")).toContainText("Fix");
  await saved(page);
  await page.getByRole("button", { name: "Write it now" }).click();
  await expect(text(page).getByRole("heading", { name: "Packing list" })).toBeVisible();
  await expect(page.getByRole("navigation", { name: "Chapters" })).toContainText("not written yet");
  await text(page).locator("p").click();
  await page.keyboard.type("Boots.");
  await saved(page);
  await page.getByRole("navigation", { name: "Chapters" }).getByRole("link").first().click();
  await expect(card(page, "tide office")).toBeVisible();
  await expect(card(page, "tide office")).not.toContainText("Fix");
});

test("words, description and a page's title are given beside the destination; tracking is offered for removal", async ({
  page,
}) => {
  await open(page, "https://maps.hesterley.example/sheets");
  await page.keyboard.type("https://maps.hesterley.example/sheets?utm_source=letter&x=1");
  await expect(line(page)).toContainText("Hesterley Maps — sheets");
  await line(page).getByRole("button", { name: "Use as words" }).click();
  await expect(line(page)).toContainText("utm_source");
  await line(page).getByRole("button", { name: "Remove" }).click();
  await line(page).getByLabel("Description").fill("All four causeways on one sheet");
  await page.keyboard.press("Enter");
  const link = text(page).getByRole("link", { name: "Hesterley Maps — sheets" });
  await expect(link).toHaveAttribute("href", "https://maps.hesterley.example/sheets?x=1");
  await expect(link).toHaveAttribute("data-description", "All four causeways on one sheet");
  // One action, one undo.
  await page.keyboard.press("Control+z");
  await expect(text(page).getByRole("link")).toHaveText("https://maps.hesterley.example/sheets");
});

test("a link is copied from one place and given to other words", async ({ page }) => {
  await open(page, "tide office");
  await page.keyboard.type("https://tides.hesterley.example/");
  await page.keyboard.press("Enter");
  await text(page).getByRole("link", { name: "tide office" }).click();
  await page.keyboard.press("Alt+l");
  await selectWords(page, "the hours");
  await page.keyboard.press("Alt+Shift+l");
  await expect(text(page).getByRole("link", { name: "the hours" })).toHaveAttribute(
    "href",
    "https://tides.hesterley.example/",
  );
  await selectWords(page, "nine");
  await page.getByRole("button", { name: /^Give the copied link/ }).click();
  await expect(text(page).getByRole("link", { name: "nine" })).toHaveAttribute(
    "href",
    "https://tides.hesterley.example/",
  );
});

test("a page of a companion file is led to by its number, and a place in it by its name", async ({
  page,
}) => {
  await bringLeaflet(page);
  await open(page, "plan of R1");
  await page.keyboard.type("huts page 3");
  await expect(line(page).getByRole("option").first()).toContainText("huts.pdf, page 3");
  await page.keyboard.press("Enter");
  await expect(card(page, "plan of R1")).toHaveAccessibleName(/huts\.pdf, page 3/);
  await open(page, "tide office");
  await page.keyboard.type("Goosewing");
  const place = line(page).getByRole("option").filter({ hasText: "In huts.pdf" }).first();
  await expect(place).toContainText("Goosewing");
  await place.click();
  await expect(card(page, "tide office")).toHaveAccessibleName(/huts\.pdf, “Goosewing”/);
  await saved(page);
  await page.getByRole("link", { name: "Links", exact: true }).click();
  await expect(page.getByRole("row").filter({ hasText: "plan of R1" })).toContainText("huts.pdf, page 3");
});

test("the spot of a companion file to which a link leads is pointed at on its page, by pointer or by keys", async ({
  page,
}) => {
  await bringLeaflet(page);
  const pointing = page.getByRole("dialog", { name: "Where in huts.pdf does the link lead?" });
  const choose = async (words: string) => {
    await open(page, words);
    await page.keyboard.type("huts.pdf");
    await line(page).getByRole("button", { name: "Point at the place" }).click();
    await expect(pointing.getByRole("slider", { name: "Spot on page 1" })).toBeVisible();
  };
  await choose("plan of R1");
  await pointing.getByRole("button", { name: "Next page" }).click();
  await expect(pointing.getByText("Page 2 of 6")).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await pointing.getByRole("slider", { name: "Spot on page 2" }).click({ position: { x: 60, y: 200 } });
  await expect(pointing).toBeHidden();
  await expect(line(page)).toContainText("Leads to huts.pdf, page 2.");
  await line(page).getByRole("button", { name: "Link", exact: true }).click();
  await expect(card(page, "plan of R1")).toHaveAccessibleName(/huts\.pdf, page 2/);
  // By keys: down the page, and taken.
  await choose("tide office");
  await pointing.getByRole("slider").focus();
  for (const key of ["PageDown", "PageDown", "Shift+ArrowDown", "ArrowDown"]) await page.keyboard.press(key);
  await expect(pointing.getByRole("slider")).toHaveAttribute("aria-valuetext", /^10 points/);
  await page.keyboard.press("Enter");
  await expect(line(page)).toContainText("Leads to huts.pdf, page 3.");
  await leadsTo(page).press("Enter");
  // A place by its name.
  await choose("wardens");
  await pointing.getByRole("navigation", { name: "Places in the file" }).getByRole("button").first().click();
  await leadsTo(page).press("Enter");
  await saved(page);
  const rows = (await (await page.request.get(`/api/books/${bookId}/links`)).json()) as {
    rows: { text: string; destination: string }[];
  };
  expect(
    rows.rows
      .slice(0, 3)
      .map(({ text: words, destination }) => `${words} ${destination.replace(/^[^#]*/, "")}`),
  ).toEqual([
    expect.stringMatching(/^tide office #page=3&zoom=100,0,\d+$/),
    "plan of R1 #page=2&zoom=100,0,200",
    expect.stringMatching(/^wardens #(page|nameddest)=/),
  ]);
});
