import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { loadDemo } from "../demo/load.mjs";
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
  const { address } = await startServices(processes, folder, await freePort(), { REACH_TIMEOUT_MS: "4000" });
  await loadDemo(address);
  mkdirSync(out, { recursive: true });
  browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  await take("light", "");
  await take("dark", "-dark");

  async function take(colorScheme, suffix) {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      colorScheme,
      baseURL: address,
    });
    const shot = async (name) => {
      await page.waitForTimeout(500);
      await page.screenshot({ path: join(out, `${name}${suffix}.png`) });
    };
    await page.goto("/sign-in");
    await page.getByRole("button", { name: "Open the demo book" }).waitFor();
    await shot("sign-in");
    await page.getByRole("button", { name: "Open the demo book" }).click();
    await page.getByRole("link", { name: "The Tidal Causeways" }).click();
    await page.getByRole("link", { name: "Checks" }).click();
    await page.getByRole("button", { name: "Ask all addresses" }).click();
    await page.getByText(/4[0-9] of 50 addresses asked/).waitFor();
    await page.waitForTimeout(1300);
    await shot("checks");
    await page.getByText("The last run asked").waitFor();
    await page.getByRole("link", { name: "Export" }).click();
    for (const format of ["PDF", "EPUB"]) {
      await page.getByRole("button", { name: `Export ${format}` }).click();
      await page
        .getByRole("listitem")
        .filter({ hasText: `.${format.toLowerCase()}` })
        .first()
        .waitFor();
    }
    await shot("export");
    await page.getByRole("link", { name: "Link proof" }).last().click();
    await page.getByText("links intact").waitFor();
    await shot("link-proof");
    await page.getByRole("link", { name: "Shelf" }).click();
    await page.getByText("57 links").waitFor();
    await shot("shelf");
    await page.getByRole("link", { name: "The Tidal Causeways" }).click();
    await page.getByRole("link", { name: "tables of the former harbour board" }).click();
    await shot("write");
    await page.getByRole("textbox", { name: "Text of the chapter" }).locator("p").first().click();
    await page.keyboard.press("Home");
    for (let i = 0; i < 6; i++) await page.keyboard.press("Shift+ArrowRight");
    await page.waitForTimeout(100);
    await page.keyboard.press("Control+k");
    await page.keyboard.type("www.tides.hesterley.example/sound.");
    await shot("link-line");
    await page.close();
  }
} finally {
  await browser?.close();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
