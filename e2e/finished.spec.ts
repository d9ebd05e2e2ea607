import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { unzipSync } from "fflate";
import { expect, openOwnBook, test } from "./fixtures";
import { violations } from "./violations";

const leaflet = join(import.meta.dirname, "../web/public/examples/huts-of-the-outer-sands.pdf");
const sheet = (page: Page) => page.getByTestId("sheet");
const cards = (page: Page) => page.getByRole("group", { name: "Margin cards" });
const kept = (page: Page) => expect(page.getByText("Kept", { exact: true })).toBeVisible();

/** Brings the leaflet in over the interface that scripts use, and opens its page with most links. */
async function openLeaflet(page: Page): Promise<string> {
  await openOwnBook(page, "# Another book\n\nIts words.\n");
  const sent = await page.request.post("/api/books/finished", {
    multipart: { file: { name: "huts.pdf", mimeType: "application/pdf", buffer: readFileSync(leaflet) } },
  });
  const { id } = (await sent.json()) as { id: string };
  await page.request.get(`/api/jobs/${id}/events`);
  const { bookId } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as { bookId: string };
  await page.goto(`/books/${bookId}/write`);
  await page.getByLabel("Page", { exact: true }).fill("3");
  await expect(cards(page).getByRole("button", { name: /^Link “tide tables”/ })).toBeVisible();
  return bookId;
}

/** Where sought words stand on the page that is shown. */
async function boxOfWords(page: Page, words: string) {
  await page.getByLabel("Search the pages").fill(words);
  await expect(page.getByText("1 here")).toBeVisible();
  const box = (await sheet(page).locator("span.border-b-2").first().boundingBox())!;
  await page.getByLabel("Search the pages").fill("");
  return box;
}

test("a PDF is brought in, words are picked and led, a version is saved, and its proof says that all is as asked", async ({
  page,
}) => {
  await openOwnBook(page, "# Another book\n\nIts words.\n");
  await page.goto("/");
  await page.getByRole("button", { name: "Bring in a finished file" }).click();
  await page.getByRole("button", { name: "a leaflet (PDF)" }).click();
  await page.getByRole("button", { name: "Bring it in" }).click();
  await page.getByRole("link", { name: "huts-of-the-outer-sands.pdf" }).click();
  await page.getByLabel("Page", { exact: true }).fill("3");
  const box = await boxOfWords(page, "Heronfoot, half way");
  await page.mouse.move(box.x + 3, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 3, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  const line = page.getByRole("form", { name: "Link line" });
  await line.getByRole("combobox").fill("Heronfoot");
  await expect(line.getByRole("option").first()).toContainText("Heronfoot");
  await page.keyboard.press("Enter");
  await expect(
    cards(page).getByRole("button", { name: /^Link “Heronfoot, half way” to Heronfoot/ }),
  ).toBeVisible();
  await kept(page);
  await page.getByRole("link", { name: "Save" }).click();
  await page.getByRole("button", { name: "Save as a new version" }).click();
  await expect(page.getByText("Saved: 1 new. All else is as it was.")).toBeVisible();
  await page.getByRole("link", { name: "Link proof" }).click();
  await expect(page.getByRole("heading", { name: "Link proof" })).toBeVisible();
  await expect(page.getByText(/^All \d+ links intact/)).toBeVisible();
  await page.goto(page.url().replace("/export/", "/read/"));
  await page.getByRole("button", { name: "Walk the links" }).click();
  const walk = page.getByRole("complementary", { name: "The walk" });
  await walk.getByRole("button", { name: "One step" }).click();
  await walk.getByRole("button", { name: "Walk on" }).click();
  await expect(walk.getByRole("button", { name: "Walk again" })).toBeVisible();
  await expect(walk.getByText(/^(\d+) of \1 links walked, all as intended$/)).toBeVisible();
});

test("an area is drawn, moved by keys, framed, pointed at a spot of another page, taken out, and all of it undone", async ({
  page,
}) => {
  await openLeaflet(page);
  const before = await cards(page).getByRole("button", { name: /^Link/ }).count();
  await page.getByRole("radio", { name: "Area" }).click();
  await page.getByRole("checkbox", { name: "tight around words" }).uncheck();
  const at = (await sheet(page).boundingBox())!;
  await page.mouse.move(at.x + 60, at.y + 30);
  await page.mouse.down();
  await page.mouse.move(at.x + 160, at.y + 50, { steps: 4 });
  await page.mouse.up();
  await page.getByRole("button", { name: "Point at the place in the file" }).click();
  await page.getByRole("button", { name: "Next page" }).click();
  await expect(page.getByText("Press the spot to which the link leads")).toBeVisible();
  await expect(sheet(page).getByText("Goosewing has room for six")).toBeAttached();
  await page.mouse.click(at.x + 80, at.y + 120);
  // Back on the page of the link, which leads there now.
  await expect(page.getByLabel("Page", { exact: true })).toHaveValue("3");
  const made = cards(page).getByRole("button", { name: /^Link without words to Page/ });
  await expect(made).toBeVisible();
  await page.getByLabel("Line", { exact: true }).selectOption("dashed");
  await page.getByLabel("Description").fill("To the hut");
  await page.getByLabel("Description").press("Enter");
  const area = sheet(page).getByRole("button", { name: "Link To the hut" });
  const first = (await area.boundingBox())!;
  await area.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Alt+ArrowDown");
  await expect.poll(async () => Math.round((await area.boundingBox())!.y - first.y)).toBe(10);
  await kept(page);
  await page.keyboard.press("Delete");
  await expect(made).toBeHidden();
  await page.keyboard.press("Control+z");
  await expect(made).toBeVisible();
  for (let i = 0; i < 5; i++) await page.keyboard.press("Control+z");
  await expect(cards(page).getByRole("button", { name: /^Link/ })).toHaveCount(before);
  await kept(page);
  await page.reload();
  await expect(cards(page).getByRole("button", { name: /^Link/ })).toHaveCount(before);
});

test("addresses that are no links yet are offered together, and the ledger and the findings know the pages", async ({
  page,
}) => {
  const bookId = await openLeaflet(page);
  await page.getByRole("button", { name: "Addresses without a link" }).click();
  const list = page.getByRole("region", { name: "Addresses without a link" });
  await expect(list.getByRole("checkbox")).toHaveCount(3);
  await list.getByRole("checkbox").first().uncheck();
  await list.getByRole("button", { name: "Link 2 addresses" }).click();
  await expect(cards(page).getByRole("button", { name: /repairs@causeways\.example/ })).toBeVisible();
  await kept(page);
  // What a link of the file is as large as is the file's; its card does the same (WCAG 2.2, 2.5.8, equivalent).
  expect((await violations(page)).filter((one) => !/^target-size.*data-link-area/.test(one))).toEqual([]);
  await page.goto(`/books/${bookId}/links`);
  await expect(page.getByRole("row", { name: /repairs@causeways\.example/ })).toBeVisible();
  await page.getByRole("link", { name: "Go to “tide tables” in the text" }).click();
  await expect(
    cards(page).getByRole("button", { name: /^Link “tide tables”/, expanded: true }),
  ).toBeVisible();
  await page.goto(`/books/${bookId}/checks/findings`);
  await expect(page.getByText("“here” does not say where it leads.", { exact: false }).first()).toBeVisible();
  await page.goto(`/books/${bookId}/export`);
  await expect(page.getByRole("heading", { name: "Save", exact: true })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test("a host is exchanged in several finished files at once, which one undo takes back, and versions of all are saved", async ({
  page,
}) => {
  await openLeaflet(page);
  const buffer = readFileSync(leaflet);
  const sent = await page.request.post("/api/books/finished", {
    multipart: { file: { name: "huts-again.pdf", mimeType: "application/pdf", buffer } },
  });
  const { id } = (await sent.json()) as { id: string };
  await page.request.get(`/api/jobs/${id}/events`);
  await page.goto("/");
  await page.getByRole("button", { name: "All 2 finished files at once" }).click();
  const many = page.getByRole("region", { name: "All finished files at once" });
  await many.getByLabel("This host").fill("tides.hesterley.example");
  await many.getByLabel("becomes").fill("tables.hesterley.example");
  await many.getByRole("button", { name: "Look what would change" }).click();
  await expect(many.getByText("2 links change")).toHaveCount(2);
  expect(await violations(page)).toEqual([]);
  await many.getByRole("button", { name: "Change 4 links" }).click();
  await expect(page.getByText("became tables.hesterley.example in 2 files", { exact: false })).toBeVisible();
  await many.getByRole("button", { name: "Save new versions" }).click();
  await expect(many.getByText("Saved: 2 changed. All else is as it was.")).toHaveCount(2);
  const download = page.waitForEvent("download");
  await many.getByRole("button", { name: "Download the last versions (ZIP)" }).click();
  const archive = unzipSync(readFileSync(await (await download).path()));
  expect(Object.keys(archive).sort()).toEqual(["huts-again.pdf", "huts.pdf"]);
  for (const saved of Object.values(archive)) expect(saved.length).toBeGreaterThan(buffer.length);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("The links of 2 files are as before.")).toBeVisible();
});

test("a PDF that opens with a password is shown, saved and read with it; its first page is seen before it is sent", async ({
  page,
}) => {
  const folder = mkdtempSync(join(tmpdir(), "locked-"));
  const locked = join(folder, "locked.pdf");
  const passwords = ["--encrypt", "low tide", "owner's", "256"];
  execFileSync("qpdf", ["--warning-exit-0", "--no-warn", ...passwords, "--", leaflet, locked]);
  await openOwnBook(page, "# Another book\n\nIts words.\n");
  await page.goto("/");
  await page.getByRole("button", { name: "Bring in a finished file" }).click();
  const files = page.getByLabel("PDFs and e-books");
  await files.setInputFiles(leaflet);
  await expect(page.getByRole("img", { name: "The first page of the file" })).toBeVisible();
  await files.setInputFiles(locked);
  await page.getByLabel("The password with which locked.pdf opens").fill("low tide");
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Bring it in" }).click();
  await page.getByRole("link", { name: "locked.pdf" }).click();
  await page.getByLabel("Page", { exact: true }).fill("3");
  const card = cards(page).getByRole("button", { name: /^Link “tide tables”/ });
  await card.click();
  await page.getByRole("button", { name: "Remove" }).click();
  await kept(page);
  await page.getByRole("link", { name: "Save" }).click();
  await page.getByRole("button", { name: "Save as a new version" }).click();
  await expect(page.getByText(/^Saved: 1 taken out\. All else is as it was\./)).toBeVisible();
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Read" }).click();
  await expect(page.getByText("Huts of the Outer Sands").first()).toBeVisible();
});
