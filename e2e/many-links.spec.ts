import { readFileSync } from "node:fs";
import { expect, openOwnBook, saved, test, text } from "./fixtures";
import { violations } from "./violations";

const markdown = `# Crossing

Ask the [tide office](https://tides.hesterley.example/today). The tide office knows R1 and R2. Write to [a](https://maps.hesterley.example/a).

# Refuges

R2 again, R7, and the Tide Office. See [b](https://maps.hesterley.example/b).
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});
const bar = (page: import("@playwright/test").Page) => page.getByRole("status").filter({ hasText: "Undo" });

test("every mention is linked as one action over the book, and one undo takes it back", async ({ page }) => {
  await text(page).getByRole("link", { name: "tide office" }).click();
  await page.getByRole("button", { name: "Link every mention" }).click();
  const panel = page.getByRole("form", { name: "Link every mention" });
  await expect(panel.getByRole("listitem")).toHaveCount(2);
  await panel.getByLabel("Letter case has to match").check();
  await expect(panel.getByRole("listitem")).toHaveCount(1);
  await panel.getByLabel("Letter case has to match").uncheck();
  await panel.getByRole("button", { name: "Link 2 mentions" }).click();
  await expect(bar(page)).toContainText("Linked “tide office” in 2 places in 2 chapters.");
  // The open chapter shows it without being opened anew.
  await expect(text(page).getByRole("link", { name: "tide office" })).toHaveCount(2);
  await text(page).locator("p").first().click();
  await page.keyboard.press("Control+Home");
  await page.keyboard.type("The ");
  await saved(page);
  await bar(page).getByRole("button", { name: "Undo" }).click();
  await expect(text(page).getByRole("link", { name: "tide office" })).toHaveCount(1);
  await expect(text(page).getByRole("heading", { name: "The Crossing" })).toBeVisible();
});

test("addresses without a link are listed over the book, linked as one action, and one undo takes it back", async ({
  page,
}) => {
  const paragraph = (words: string) => ({ type: "paragraph", content: [{ type: "text", text: words }] });
  const document = {
    type: "doc",
    content: [
      { type: "title", attrs: { id: "huts" }, content: [{ type: "text", text: "Huts" }] },
      paragraph("Ask www.huts.hesterley.example, or wardens@causeways.example."),
      paragraph("The old page was https://huts.hesterley.example/old"),
    ],
  };
  await page.request.post(`/api/books/${bookId}/chapters`, { data: { title: "Huts", document } });
  await page.goto(`/books/${bookId}/links`);
  await page.getByRole("link", { name: "Addresses without a link" }).click();
  await expect(page.getByRole("listitem").filter({ has: page.getByRole("checkbox") })).toHaveCount(3);
  await expect(page.getByText("will lead to https://www.huts.hesterley.example/")).toBeVisible();
  expect(await violations(page)).toEqual([]);
  const all = page.getByRole("checkbox", { name: "All of them" });
  await expect(all).toBeChecked();
  await page.getByRole("checkbox", { name: /huts\.hesterley\.example\/old/ }).uncheck();
  await expect(all).not.toBeChecked();
  await page.getByRole("button", { name: "Link 2 addresses" }).click();
  await expect(bar(page)).toContainText("Linked addresses in 2 places in 1 chapter.");
  await expect(page.getByRole("button", { name: "Link 1 address" })).toBeVisible();
  await bar(page).getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "Link 3 addresses" })).toBeVisible();
  await page.getByRole("button", { name: "Link 3 addresses" }).click();
  await expect(page.getByText("Every address that stands in the text is a link.")).toBeVisible();
  await page.getByRole("link", { name: "All links" }).click();
  await expect(page.getByRole("row").filter({ hasText: "wardens@causeways.example" })).toBeVisible();
});

test("codes are matched to files from one example, confirmed, and linked", async ({ page }) => {
  await page.goto(`/books/${bookId}/links/files`);
  await page.getByLabel("Files to bring in").setInputFiles(
    ["R1 plan.txt", "R02.txt", "notes.txt"].map((name) => ({
      name,
      mimeType: "text/plain",
      buffer: Buffer.from(name),
    })),
  );
  await expect(page.getByText("no link leads here")).toHaveCount(3);
  await page.getByRole("link", { name: "Match codes to files" }).click();
  await page.getByLabel("Codes as they stand in the text").fill("R1");
  const rows = page.getByRole("row");
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(1)).toContainText("The name has the code");
  await expect(rows.nth(2)).toContainText("The name is the code");
  await expect(rows.nth(3)).toContainText("No file fits");
  await expect(page.getByText("Without a file: R7.")).toBeVisible();
  await expect(page.getByText("Files that no code stands for: notes.txt.")).toBeVisible();
  await page.getByLabel("Confirm R1").uncheck();
  await page.getByRole("button", { name: "Link 1 code in 2 places" }).click();
  await expect(bar(page)).toContainText("Linked “R2” in 2 places in 2 chapters.");
  await page.getByRole("link", { name: "Files", exact: true }).click();
  await expect(page.getByText("2 links lead here")).toBeVisible();
});

test("a file that comes in while the list is still being read stands in it", async ({ page }) => {
  const files = `**/api/books/${bookId}/files`;
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  const asBefore = new Promise<void>((resolve) => {
    void page.route(
      files,
      async (route) => {
        const answer = await route.fetch();
        resolve();
        await held;
        // Whoever asked may ask no more.
        await route.fulfill({ response: answer }).catch(() => undefined);
      },
      { times: 1 },
    );
  });
  await page.goto(`/books/${bookId}/links/files`);
  await asBefore;
  const [sent] = await Promise.all([
    page.waitForResponse((answer) => answer.request().method() === "POST"),
    page
      .getByLabel("Files to bring in")
      .setInputFiles({ name: "plan.txt", mimeType: "text/plain", buffer: Buffer.from("The plan.") }),
  ]);
  await sent.finished();
  await expect(page.getByText("Bringing in 1 file")).toHaveCount(0);
  letGo();
  await expect(page.getByText("no link leads here")).toHaveCount(1);
});

test("the ledger filters, sorts, groups, edits in place, goes to the text, and gives CSV", async ({
  page,
}) => {
  await page.getByRole("link", { name: "Links", exact: true }).click();
  const rows = page.getByRole("table", { name: "Link ledger" }).getByRole("row");
  await expect(rows).toHaveCount(4);
  await page.getByLabel("Search the links").fill("maps refuges");
  await expect(rows).toHaveCount(2);
  await page.getByLabel("Search the links").fill("");
  await page.getByRole("button", { name: "Destination" }).click();
  await expect(rows.nth(1)).toContainText("maps.hesterley.example/a");
  await page.getByRole("button", { name: "Destination" }).click();
  await expect(rows.nth(1)).toContainText("tides.hesterley.example");

  await page.getByRole("button", { name: "Edit “b”" }).click();
  const edit = page.getByRole("form", { name: "Edit the link “b”" });
  await edit.getByLabel("Leads to").fill("www.maps.hesterley.example/c");
  await edit.getByLabel("Description").fill("The third sheet");
  await page.keyboard.press("Enter");
  await expect(rows.filter({ hasText: "The third sheet" })).toContainText("www.maps.hesterley.example/c");

  await page.getByRole("button", { name: "Columns" }).click();
  await page.getByRole("menuitemcheckbox", { name: "Heading" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("columnheader", { name: "Heading" })).toHaveCount(0);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "CSV" }).click(),
  ]);
  const csv = readFileSync(await download.path(), "utf8");
  expect(csv.split("\n")[0]).toBe("Link text,Kind,Destination,Description,Chapter,State,Last check");
  expect(csv).toContain("https://www.maps.hesterley.example/c,The third sheet");

  await page.getByRole("checkbox", { name: "By destination" }).check();
  await page.getByRole("button", { name: /maps\.hesterley\.example\/a/ }).click();
  await expect(rows).toHaveCount(2);
  await page.getByRole("link", { name: "Go to “a” in the text" }).click();
  await expect(page.getByRole("button", { name: /^Link “a”/ })).toHaveAttribute("aria-expanded", "true");
});

test("a host is exchanged for all chosen links after a preview, and undone as one step, even later", async ({
  page,
}) => {
  await page.getByRole("link", { name: "Links", exact: true }).click();
  await page.getByLabel("Choose all 3").check();
  await page.getByRole("button", { name: "Exchange a host" }).click();
  await page.getByLabel("This host").fill("maps.hesterley.example");
  await page.getByLabel("becomes").fill("charts.hesterley.example");
  await expect(page.getByText("2 links change, 1 stay as they are.")).toBeVisible();
  await expect(page.getByRole("insertion").first()).toHaveText("https://charts.hesterley.example/a");
  await page.getByRole("button", { name: "Change 2 links" }).click();
  const rows = page.getByRole("table", { name: "Link ledger" }).getByRole("row");
  await expect(rows.filter({ hasText: "charts.hesterley.example" })).toHaveCount(2);
  await page.getByRole("link", { name: "What was done" }).click();
  await page.getByRole("main").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("2 links are as before.")).toBeVisible();
  await page.getByRole("link", { name: "All links" }).click();
  await expect(rows.filter({ hasText: "charts.hesterley.example" })).toHaveCount(0);
  await expect(rows).toHaveCount(4);
});

test("versions are named, compared with their links listed apart, and brought back", async ({ page }) => {
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByLabel("Save it as it is now, as").fill("Before the storm");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Before the storm")).toBeVisible();
  await page.getByRole("link", { name: "Back to the text" }).click();
  await text(page).getByRole("link", { name: "tide office" }).click();
  await page.getByLabel("Leads to").fill("https://tides.hesterley.example/tomorrow");
  await page.keyboard.press("Enter");
  await page.keyboard.press("End");
  await page.keyboard.type(" Then wait.");
  await saved(page);
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByLabel("Compare from Before the storm").check();
  const links = page.getByRole("region", { name: "Links" });
  await expect(links).toContainText("1 link differs");
  await expect(links.getByRole("deletion")).toHaveText("https://tides.hesterley.example/today");
  await expect(page.getByRole("region", { name: "Words" }).getByRole("insertion").first()).toContainText(
    "Then",
  );
  await page
    .getByRole("row")
    .filter({ hasText: "Before the storm" })
    .getByRole("button", { name: "Bring back" })
    .click();
  await expect(text(page).getByRole("link", { name: "tide office" })).toHaveAttribute(
    "href",
    "https://tides.hesterley.example/today",
  );
  await expect(text(page)).not.toContainText("Then wait");
});

test("links to files that were not brought along start from a web address that is given later", async ({
  page,
}) => {
  await openOwnBook(
    page,
    "# Walks\n\nThe [plan](plan.pdf), the [low](maps/low.html#nine) and the [ferry](https://ferry.hesterley.example/).\n",
  );
  await page.getByRole("link", { name: "Links", exact: true }).click();
  await page.getByLabel("Choose all 3").check();
  await page.getByRole("button", { name: "Start from a web address" }).click();
  await page
    .getByLabel("Links to files that were not brought along start from")
    .fill("https://tides.hesterley.example/guide/");
  await expect(page.getByText("2 links change, 1 stay as they are.")).toBeVisible();
  await page.getByRole("button", { name: "Change 2 links" }).click();
  const rows = page.getByRole("table", { name: "Link ledger" }).getByRole("row");
  await expect(rows.filter({ hasText: "tides.hesterley.example" })).toHaveCount(2);
});
