import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Locator, Page } from "@playwright/test";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { smallEpub } from "@vennet/core/test/small-epub";
import { expect, openOwnBook, test } from "./fixtures";
import { violations } from "./violations";

const almanac = join(import.meta.dirname, "../web/public/examples/a-year-of-low-water.epub");
const cards = (page: Page) => page.getByRole("group", { name: "Margin cards" });
const kept = (page: Page) => expect(page.getByText("Kept", { exact: true })).toBeVisible();
const inBook = (page: Page) => page.frameLocator('[data-testid="book-page"] iframe');
const turnTo = async (page: Page, title: RegExp, words: string): Promise<void> => {
  await page
    .getByRole("navigation", { name: "Ways through the file" })
    .getByRole("button", { name: title })
    .click();
  await expect(inBook(page).getByText(words).first()).toBeVisible();
};

/** Brings the almanac in over the interface that scripts use, and opens a page of it. */
async function openAlmanac(
  page: Page,
  title = /January/,
  words = "Boots and ropes",
  bytes: Uint8Array = readFileSync(almanac),
): Promise<string> {
  await openOwnBook(page, "# Another book\n\nIts words.\n");
  const sent = await page.request.post("/api/books/finished", {
    multipart: {
      file: { name: "year.epub", mimeType: "application/epub+zip", buffer: Buffer.from(bytes) },
    },
  });
  const { id } = (await sent.json()) as { id: string };
  await page.request.get(`/api/jobs/${id}/events`);
  const { bookId } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as { bookId: string };
  await page.goto(`/books/${bookId}/write`);
  await turnTo(page, title, words);
  return bookId;
}

/** Selects words at the beginning of a paragraph, up to so many px from its left edge. */
async function selectFrom(page: Page, paragraph: Locator, width: number): Promise<void> {
  const box = (await paragraph.boundingBox())!;
  await page.mouse.dblclick(box.x + 10, box.y + 14);
  await page.keyboard.down("Shift");
  await page.mouse.click(box.x + width, box.y + 14);
  await page.keyboard.up("Shift");
}

// The page stands in a frame in which no script runs, not even those by which the tests look into it.
test.beforeEach(({ quiet }) => void quiet.push("Blocked script execution"));

test("an e-book is brought in, words are picked and led, a version is saved, proven, read and walked", async ({
  page,
}) => {
  await openOwnBook(page, "# Another book\n\nIts words.\n");
  await page.goto("/");
  await page.getByRole("button", { name: "Bring in a finished file" }).click();
  await page.getByRole("button", { name: "an almanac (e-book)" }).click();
  await page.getByRole("button", { name: "Bring it in" }).click();
  await page.getByRole("link", { name: "a-year-of-low-water.epub" }).click();
  await turnTo(page, /January/, "Boots and ropes");
  await selectFrom(page, inBook(page).locator("p", { hasText: "Boots and ropes" }), 110);
  const line = page.getByRole("form", { name: "Link line" });
  await line.getByRole("combobox").fill("By lantern");
  await expect(line.getByRole("option").first()).toContainText("By lantern");
  await page.keyboard.press("Enter");
  await expect(
    cards(page).getByRole("button", { name: /^Link “Boots and ropes” to By lantern/ }),
  ).toBeVisible();
  await expect(inBook(page).locator("a[data-link-id]", { hasText: "Boots and ropes" })).toBeVisible();
  await kept(page);
  await page.getByRole("button", { name: "Go there" }).click();
  await expect(inBook(page).locator("[data-landed]")).toHaveText("By lantern");
  // New links on a page do not move what is known of it.
  await selectFrom(page, inBook(page).locator("p", { hasText: "From November" }), 90);
  await line.getByRole("combobox").fill("After the gales");
  await expect(line.getByRole("option").first()).toContainText("After the gales");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Go there" }).click();
  await expect(inBook(page).locator("[data-landed]")).toHaveText("After the gales");

  await page.getByRole("link", { name: "Save", exact: true }).click();
  await page.getByRole("button", { name: "Save as a new version" }).click();
  await expect(page.getByText("Saved: 2 new. All else is as it was.")).toBeVisible();
  const loading = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download" }).first().click();
  const saved = unzipSync(new Uint8Array(readFileSync(await (await loading).path())));
  const came = unzipSync(new Uint8Array(readFileSync(almanac)));
  const touched = Object.keys(came).filter(
    (name) => strFromU8(came[name]!, true) !== strFromU8(saved[name]!, true),
  );
  expect(touched).toHaveLength(2);
  expect(touched.map((name) => strFromU8(saved[name]!)).join("")).toMatch(
    /<a href="chapter-\d+\.xhtml#[\w-]+">Boots and ropes<\/a>/,
  );

  // The walk presses every link of the saved file, and compares where it leads with what was asked.
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Read" }).click();
  await page.getByRole("button", { name: "Walk the links" }).click();
  const walk = page.getByRole("complementary", { name: "The walk" });
  await walk.getByRole("button", { name: "One step" }).click();
  await walk.getByRole("button", { name: "Walk on" }).click();
  await expect(walk.getByRole("button", { name: "Walk again" })).toBeVisible();
  const told = walk.getByText(/^(\d+) of \1 links walked, all as intended$/);
  await expect(told).toBeVisible();
  expect(Number.parseInt((await told.textContent())!)).toBeGreaterThan(15);
});

test("a link is reworded, described and led to a paragraph that is pointed at; all of it is undone", async ({
  page,
}) => {
  const bookId = await openAlmanac(page);
  await cards(page)
    .getByRole("button", { name: /^Link “here”/ })
    .click();
  await cards(page).getByLabel("Words").fill("boots at the shed");
  await page.keyboard.press("Enter");
  await expect(inBook(page).locator("a[data-link-id]", { hasText: "boots at the shed" })).toBeVisible();
  await cards(page).getByLabel("Description").fill("What the shed lends");
  await page.keyboard.press("Enter");
  await kept(page);
  await page.getByRole("button", { name: "Point at the place" }).click();
  await turnTo(page, /October/, "Gales move");
  await inBook(page).getByText("Gales move").click();
  await expect(
    cards(page).getByRole("button", { name: /^Link “boots at the shed” to Gales move/ }),
  ).toBeVisible();
  await kept(page);
  const linksNow = async (): Promise<unknown[]> => {
    const answer = await page.request.get(`/api/books/${bookId}/finished/pages`);
    const pages = (await answer.json()) as {
      document: { links: { words: string; description: string; destination: object }[] };
    }[];
    return pages.flatMap(({ document }) =>
      document.links
        .filter(({ words }) => /here|boots/.test(words))
        .map(({ words, description, destination }) => [words, description, destination]),
    );
  };
  expect(await linksNow()).toEqual([
    ["boots at the shed", "What the shed lends", { kind: "place", target: expect.stringMatching(/^place-/) }],
  ]);
  for (let i = 0; i < 3; i++) {
    const put = page.waitForResponse((answer) => answer.request().method() === "PUT" && answer.ok());
    await page.keyboard.press("Control+z");
    await put;
  }
  await expect
    .poll(linksNow)
    .toEqual([["here", null, { kind: "web", address: "https://outfitters.example/boots" }]]);
});

test("what cannot be a link as one is told, and addresses without a link are offered together", async ({
  page,
}) => {
  await openAlmanac(page, /July/, "Fog comes up");
  await page.getByLabel("Search the pages").fill("the rules of the bell");
  await page.getByRole("button", { name: "Link it" }).click();
  await expect(page.getByText(/is in a link already/)).toBeVisible();
  await page.getByLabel("Search the pages").fill("");
  await page.getByRole("button", { name: "Addresses without a link" }).click();
  const offered = page.getByRole("region", { name: "Addresses without a link" });
  await expect(offered.getByRole("checkbox")).toHaveCount(3);
  await expect(offered.getByText("walks@society.example")).toBeVisible();
  await offered.getByRole("button", { name: "Link 3 addresses" }).click();
  await kept(page);
  await turnTo(page, /April/, "Terns");
  await expect(cards(page).getByRole("button", { name: /^Link “walks@society.example” to/ })).toBeVisible();
  await page.keyboard.press("n");
  await expect(cards(page).getByRole("button", { expanded: true })).toHaveCount(1);
});

test("a link whose place is called otherwise now is told, and led to the one that it most likely means", async ({
  page,
}) => {
  const files = unzipSync(new Uint8Array(readFileSync(almanac)));
  const path = Object.keys(files).find((name) => strFromU8(files[name]!).includes("the last months</a>"))!;
  const broken = strFromU8(files[path]!).replace(/(href="[^"]*#[^"]*)("[^>]*>the last months)/, "$1-$2");
  const bytes = zipSync({ ...files, [path]: strToU8(broken) });
  await openAlmanac(page, /July/, "Fog comes up", bytes);
  await cards(page)
    .getByRole("button", { name: /^Link “the last months” to a place that the file does not have/ })
    .click();
  await expect(cards(page).getByText("The file has no such place")).toBeVisible();
  await cards(page).getByRole("button", { name: "Lead it to “October to December”" }).click();
  await expect(
    cards(page).getByRole("button", { name: "Link “the last months” to October to December" }),
  ).toBeVisible();
  await kept(page);
});

test("the pages of an e-book are accessible, in light and dark", async ({ page }) => {
  await openAlmanac(page);
  await cards(page)
    .getByRole("button", { name: /^Link “tide office”/ })
    .click();
  // What is in the frame is the author’s own file, and is not looked over.
  expect(await violations(page)).toEqual([]);
});

test("of a page with hundreds of links the cards and addresses on the screen are drawn, and all are worked on", async ({
  page,
}) => {
  const count = 300;
  const paragraphs = Array.from(
    { length: count },
    (_, i) =>
      `<p>Ask <a href="https://stone-${i}.hesterley.test/">stone ${i}</a> or https://post-${i}.hesterley.test/ there.</p>`,
  );
  const bytes = smallEpub({ "stones.xhtml": `<h1>Stones</h1>${paragraphs.join("")}` });
  await openAlmanac(page, /Stones/, "stone 299", bytes);
  const card = (i: number) => cards(page).getByRole("button", { name: `Link “stone ${i}” to` });
  await expect(card(0)).toBeVisible();
  expect(await cards(page).getByRole("button").count()).toBeLessThan(count / 3);
  // The last one is gone to, and its card is there, open, with those around it.
  await page.getByRole("button", { name: "Link before" }).click();
  await expect(card(count - 1)).toBeInViewport();
  await expect(card(count - 1)).toHaveAttribute("aria-expanded", "true");
  await expect(card(count - 2)).toBeVisible();
  await expect(card(0)).toHaveCount(0);

  await page.getByLabel("Search the pages").fill("stone 299");
  await expect(page.getByText("1 here")).toBeVisible();
  await page.getByRole("button", { name: "Addresses without a link" }).click();
  const offered = page.getByRole("region", { name: "Addresses without a link" });
  await expect(offered.getByRole("checkbox")).toHaveCount(100);
  await offered.getByRole("button", { name: `Link ${count} addresses` }).click();
  await expect(page.getByText(`${2 * count + 1} links`)).toBeVisible();
  await expect(inBook(page).locator("a[data-link-id]", { hasText: "https://post-299" })).toHaveCount(1);
});
