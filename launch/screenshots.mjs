import { mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { loadDemo } from "../demo/load.mjs";
import { browserLaunch } from "./browser.mjs";
import { build } from "./build.mjs";
import { root } from "./install.mjs";
import { freePort, Processes } from "./processes.mjs";
import { startServices } from "./services.mjs";

// `npm run screenshots`: takes the pictures in docs/screenshots anew, of the demo book in a Vennet of their own.

const folder = mkdtempSync(join(tmpdir(), "vennet-screenshots-"));
const out = join(root, "docs/screenshots");
const processes = new Processes();
let browser;
try {
  build();
  const { address, environment } = await startServices(processes, folder, await freePort(), {
    REACH_TIMEOUT_MS: "1500",
    REACH_RETRY_MS: "300",
  });
  await loadDemo(address);
  mkdirSync(out, { recursive: true });
  browser = await chromium.launch(browserLaunch);
  await takeAll();
  await takeDark();

  async function open(colorScheme) {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      colorScheme,
      baseURL: address,
    });
    // A slow machine takes its time to export.
    page.setDefaultTimeout(300_000);
    const shot = async (name) => {
      await page.waitForTimeout(600);
      await page.screenshot({ path: join(out, `${name}.png`) });
    };
    await page.goto("/sign-in");
    await page.getByRole("button", { name: "Open the demo book" }).waitFor();
    return { page, shot };
  }

  async function enter(page) {
    await page.getByRole("button", { name: "Open the demo book" }).click();
    await page.getByRole("link", { name: "The Tidal Causeways" }).click();
    await page.getByRole("textbox", { name: "Text of the chapter" }).waitFor();
    return new URL(page.url()).pathname.split("/")[2];
  }

  /** Makes something happen to the shared file of the demo book. */
  async function cause(event) {
    const drive = `http://127.0.0.1:${environment.STANDIN_WEB_PORT}/~/drive.hesterley.example/.events`;
    await fetch(drive, {
      method: "POST",
      body: new URLSearchParams({ event, share: "refuge-r5" }),
      redirect: "manual",
    });
  }

  /** Selects the first words of the chapter and opens the link line with something typed. */
  async function openLine(page, typed) {
    await page.getByRole("textbox", { name: "Text of the chapter" }).locator("p").first().click();
    await page.keyboard.press("Home");
    for (let i = 0; i < 6; i++) await page.keyboard.press("Shift+ArrowRight");
    await page.waitForTimeout(150);
    await page.keyboard.press("Control+k");
    await page.keyboard.type(typed);
  }

  async function takeAll() {
    const { page, shot } = await open("light");
    const book = await enter(page);
    await page.getByRole("link", { name: "Checks" }).click();
    // Some runs between which a shared file comes and goes, so that there is something to remember.
    for (const event of ["", "deleted", "", "reset", "", "deleted"]) {
      if (event !== "") await cause(event);
      await page.getByRole("button", { name: "Check all" }).click();
      await page.getByRole("progressbar", { name: "Addresses checked" }).waitFor();
      await page.getByText("The last run checked").waitFor();
    }
    const shared = page.getByRole("article").filter({ hasText: "drive.hesterley.example" });
    await shared.getByRole("button", { name: "History" }).click();
    await shared.getByRole("row").nth(3).waitFor();
    await page.getByRole("button", { name: "Check all" }).click();
    await page.getByText(/[234][0-9] of 5[0-9] addresses checked/).waitFor();
    await page.waitForTimeout(1100);
    await shot("checks");
    await page.getByText("The last run checked").waitFor();
    await page.getByRole("link", { name: "Findings" }).click();
    await page.getByRole("region", { name: "A destination has moved" }).scrollIntoViewIfNeeded();
    await shot("findings");
    await page.getByRole("link", { name: "Health" }).click();
    await page.getByRole("figure").waitFor();
    await shot("health");
    await cause("reset");
    await page.getByRole("link", { name: "Export" }).click();
    for (const [name, format] of [
      ["PDF", "pdf"],
      ["E-book", "epub"],
    ]) {
      await page.getByRole("radio", { name }).check();
      await page.getByRole("button", { name: /^Export / }).click();
      await page
        .getByRole("listitem")
        .filter({ hasText: `.${format}` })
        .first()
        .waitFor();
    }
    await page.getByRole("radio", { name: "PDF" }).check();
    await page.getByText("Jump to the exact line.").waitFor();
    await shot("export");
    await page.getByRole("link", { name: "Link proof" }).last().click();
    await page.getByRole("link", { name: "All exports" }).waitFor();
    await page.getByText("links intact").waitFor();
    await page
      .getByRole("button", { name: /^page 3, at/ })
      .nth(4)
      .click();
    await page.getByTestId("landing").waitFor();
    await shot("link-proof");
    await page.getByRole("link", { name: "All exports" }).click();
    await page.getByRole("listitem").filter({ hasText: ".pdf" }).getByRole("link", { name: "Read" }).click();
    await page.getByRole("navigation", { name: "Outline of the file" }).getByRole("button").nth(2).click();
    const sheet = page.getByRole("region", { name: /Page \d+ of the file/ });
    await page.getByTestId("landing").waitFor();
    await sheet.getByRole("button").nth(2).click();
    await shot("read");
    await page.getByRole("link", { name: "Export" }).click();
    await page.getByRole("listitem").filter({ hasText: ".epub" }).getByRole("link", { name: "Read" }).click();
    await page.getByLabel("On a").selectOption("grey screen");
    await page.getByRole("button", { name: "Walk the links" }).click();
    await page.getByRole("button", { name: "Walk", exact: true }).click();
    await page.getByText(/^(?:6[2-9]|[7-9]\d|\d{3,}) of \d+ links walked/).waitFor();
    await page.getByRole("button", { name: "Pause" }).click();
    await shot("walk");
    await page.getByRole("link", { name: "Shelf" }).click();
    // The states of links come a moment after the books.
    await page.getByText(/^\d+sound$/).waitFor();
    await shot("shelf");

    await page.goto(`/books/${book}/write`);
    const text = page.getByRole("textbox", { name: "Text of the chapter" });
    await text.waitFor();
    await shot("write");
    await page.getByRole("link", { name: "The Monk's Path" }).click();
    await page.getByRole("button", { name: "Pages", exact: true }).click();
    await page.getByText("As the text is now").waitFor();
    await text.locator("li").nth(2).click();
    await page.getByTestId("landing").waitFor();
    await shot("set-pages");
    await page.getByRole("button", { name: "Pages", exact: true }).click();
    await page.getByRole("link", { name: "Questions walkers ask" }).click();
    await page.getByRole("radio", { name: "Places" }).click();
    await text.locator(".signposts li").first().waitFor();
    await shot("places");
    await page.getByRole("radio", { name: "Chapters" }).click();
    await page.getByRole("link", { name: "The Long Stane" }).click();
    await text.locator(".cross-reference").first().waitFor();
    await text.locator("p").first().click();
    await page.keyboard.press("End");
    await page.keyboard.press("Alt+r");
    await page.keyboard.type("water turns");
    await page.getByLabel("Words and page").check();
    await shot("cross-reference");
    await page.keyboard.press("Escape");
    await page.getByRole("link", { name: "Before you set out" }).click();
    await text.getByRole("link", { name: "wind forecast" }).waitFor();
    await openLine(page, "refuge");
    await page.getByRole("listbox").getByRole("option").nth(2).waitFor();
    await shot("link-line");
    await page.keyboard.press("Escape");
    await page.getByRole("link", { name: "The Monk's Path" }).click();
    await text.locator(".picture img").click({ position: { x: 5, y: 5 } });
    await page.getByRole("button", { name: /^Hotspots/ }).click();
    await page.locator("canvas").first().waitFor();
    await page.getByRole("button", { name: /The refuge box/ }).click();
    await shot("hotspots");
    await page.getByRole("button", { name: "Cancel" }).click();

    await page.goto(`/books/${book}/links`);
    await page.getByRole("row").nth(10).waitFor();
    await shot("ledger");
    await page.getByLabel("Kind").selectOption("web");
    await page.getByLabel(/^Choose all/).check();
    await page.getByRole("button", { name: "Exchange a host" }).click();
    await page.getByLabel("This host").fill("tides.hesterley.example");
    await page.getByLabel("becomes").fill("tables.hesterley.example");
    await page.getByRole("button", { name: "Change 11 links" }).waitFor();
    await page.getByRole("button", { name: "Change 11 links" }).click();
    await page.getByText("Sent 11 links").waitFor();
    await page.goto(`/books/${book}/links/steps`);
    await page.getByRole("main").getByRole("button", { name: "Undo" }).first().click();
    await page.getByText("11 links are as before").waitFor();
    await lookAtNewVersion(page, book);
    await shot("arrival");
    await openFinished(page);
    await shot("finished");
    await openFinishedBook(page);
    await shot("finished-e-book");
    await page.close();
  }

  /** Brings the manuscript of the demo in as somebody has changed it elsewhere. */
  async function lookAtNewVersion(page, book) {
    const source = join(root, "demo/manuscript/hesterley-sound.md");
    const changed = readFileSync(source, "utf8")
      .replace("three hours on each side", "two hours on each side")
      .replace("[wind forecast]", "[forecast of the wind]")
      .replace(
        "# The Monk's Path",
        "# Tide tables\n\nAll of them are [beside this text](tables/all.pdf).\n\n# The Monk's Path",
      );
    await page.goto(`/books/${book}/bring-in`);
    await page.getByLabel("a new version of what is in the book").check();
    await page
      .getByLabel(/^The manuscript/)
      .setInputFiles({ name: "hesterley-sound.md", mimeType: "text/markdown", buffer: Buffer.from(changed) });
    await page.getByRole("button", { name: "Bring it in" }).click();
    const changes = page.getByRole("region", { name: "What it changes" });
    await changes.waitFor();
    await changes.locator("summary").first().click();
  }

  /** Opens the leaflet of the demo at its page with most links, with one of them worked on and words picked for another. */
  async function openFinished(page) {
    await page.goto("/");
    await page.getByRole("link", { name: "Huts of the Outer Sands" }).click();
    await page.getByLabel("Page", { exact: true }).fill("3");
    const cards = page.getByRole("group", { name: "Margin cards" });
    await cards.getByRole("button", { name: /^Link “wardens”/ }).click();
    await page.getByLabel("Line", { exact: true }).selectOption("dashed");
    await page.getByText("Kept", { exact: true }).waitFor();
  }

  async function openFinishedBook(page) {
    await page.goto("/");
    await page.getByRole("link", { name: "A Year of Low Water" }).click();
    const ways = page.getByRole("navigation", { name: "Ways through the file" });
    await ways.getByRole("button", { name: /^January/ }).click();
    const cards = page.getByRole("group", { name: "Margin cards" });
    await cards.getByRole("button", { name: /^Link “tide office”/ }).click();
    await page.getByText("Kept", { exact: true }).waitFor();
  }

  async function takeDark() {
    const { page, shot } = await open("dark");
    await enter(page);
    await page
      .getByRole("textbox", { name: "Text of the chapter" })
      .getByRole("link", { name: "Tide Office explains why" })
      .click();
    await shot("write-dark");
    await page.close();
  }
} finally {
  await browser?.close();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
