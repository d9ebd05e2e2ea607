import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { writeMarkdown } from "@vennet/core/publish/formats/markdown/write-markdown";
import { build } from "vite";
import { root } from "../launch/install.mjs";
import { seededBook } from "./seeded-book.mjs";
import { Spread } from "./spread.mjs";
import { bringIn, withPage } from "./with-page.mjs";

// A key in a chapter of three sizes, to the frame that shows it, and opening the chapter to the first key that is taken, with
// cards and findings live, beside bare ProseMirror with the same document, styles and browser. With a folder for an argument
// it leaves there what the browser was busy with while keys were pressed, as a trace.

const traces = process.argv[2] ?? null;
const sizes = [
  [2_000, 100],
  [10_000, 500],
  [30_000, 1_500],
];
const keys = 120;
const openings = 5;
await withPage(async ({ page, browser }) => {
  // Its script stands in no file of the server.
  const barePage = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
  const bare = await bareEditor();
  for (const one of [page, barePage])
    one.on("pageerror", (error) => {
      // What fails is fast.
      console.error(error);
      process.exitCode = 1;
    });
  for (const [words, links] of sizes) {
    const { bytes, isFolder } = writeMarkdown(seededBook({ chapters: 3, words, links }), "book.md");
    const book = await bringIn(page, bytes, isFolder);
    const [, { id: chapter }] = await (await page.request.get(`/api/books/${book}/chapters`)).json();
    const { document } = await (await page.request.get(`/api/books/${book}/chapters/${chapter}`)).json();
    const openOwn = async () => {
      await page.goto(`/books/${book}/write/${chapter}`);
    };
    const openBare = async () => {
      await barePage.setContent(`<style>${bare.styles}</style>`);
      await barePage.addScriptTag({ content: bare.script });
      await barePage.evaluate((json) => globalThis.openBare(json), document);
    };
    const own = await measure(page, openOwn, `own-${words}`);
    const alone = await measure(barePage, openBare, `bare-${words}`);
    const ratio = (own.late / alone.late).toFixed(2);
    console.log(`A chapter of ${words} words and ${links} links, with cards and findings`);
    console.log(
      `  a key to its frame, 95th percentile: ${own.late.toFixed(1)} ms, bare ProseMirror ${alone.late.toFixed(1)} ms: ratio ${ratio} (aim: at most 1.1); in the middle ${own.middle.toFixed(1)} and ${alone.middle.toFixed(1)} ms`,
    );
    console.log(
      `  tasks of more than 50 ms while keys were pressed: ${own.long}, bare ${alone.long} (aim: none)`,
    );
    const opened = { own: [], bare: [] };
    for (let i = 0; i < openings; i++) {
      opened.own.push(await toFirstKey(page, openOwn));
      opened.bare.push(await toFirstKey(barePage, openBare));
    }
    const [ownOpened, bareOpened] = [new Spread(opened.own), new Spread(opened.bare)];
    console.log(
      `  opened, to the first key that is taken: ${ownOpened}, bare ${bareOpened}: ratio ${ownOpened.over(bareOpened)} (aim: at most 1.5)`,
    );
  }

  /** Keys typed one after the other in the middle of the chapter, each to the task behind its frame. */
  async function measure(page, open, name) {
    await open();
    const paragraphs = page.locator(".manuscript > p");
    await paragraphs.first().waitFor();
    const middle = paragraphs.nth((await paragraphs.count()) >> 1);
    await middle.scrollIntoViewIfNeeded();
    await middle.click({ position: { x: 3, y: 8 } });
    // Findings and cards have come.
    await page.waitForTimeout(2500);
    await page.evaluate(() => {
      globalThis.times = [];
      globalThis.long = 0;
      new PerformanceObserver((list) => (globalThis.long += list.getEntries().length)).observe({
        type: "longtask",
      });
      addEventListener(
        "keydown",
        () => {
          const pressed = performance.now();
          requestAnimationFrame(() => {
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = () => globalThis.times.push(performance.now() - pressed);
            port2.postMessage(null);
          });
        },
        true,
      );
    });
    const tracing = traces && (await traceOf(page));
    for (let i = 0; i < keys; i++) {
      await page.keyboard.press("abcde "[i % 6]);
      await page.waitForTimeout(25);
    }
    await page.waitForTimeout(800);
    if (tracing) writeFileSync(join(traces, `${name}.json`), await tracing());
    const { times, long } = await page.evaluate(() => ({ times: globalThis.times, long: globalThis.long }));
    const sorted = times.slice(10).sort((a, b) => a - b);
    return { middle: sorted[sorted.length >> 1], late: sorted[Math.floor(sorted.length * 0.95)], long };
  }

  async function toFirstKey(page, open) {
    const started = performance.now();
    await open();
    await page
      .locator(".manuscript > p")
      .first()
      .click({ position: { x: 3, y: 8 } });
    // No word of the book has it.
    await page.keyboard.type("Z");
    await page.locator(".manuscript > p").filter({ hasText: /Z/ }).first().waitFor();
    const time = performance.now() - started;
    await page.keyboard.press("Backspace");
    return time;
  }

  /** Begins to record what the browser does. @returns what ends it, and gives the trace as Chromium’s tools read it */
  async function traceOf(page) {
    const session = await page.context().newCDPSession(page);
    const events = [];
    session.on("Tracing.dataCollected", ({ value }) => events.push(...value));
    await session.send("Tracing.start", {
      transferMode: "ReportEvents",
      traceConfig: {
        includedCategories: ["devtools.timeline", "disabled-by-default-v8.cpu_profiler", "blink.user_timing"],
      },
    });
    return async () => {
      const complete = new Promise((resolve) => session.once("Tracing.tracingComplete", resolve));
      await session.send("Tracing.end");
      await complete;
      return JSON.stringify({ traceEvents: events });
    };
  }
});

/** ProseMirror’s view of a chapter with nothing around it, as one script, and the application’s own styles. */
async function bareEditor() {
  const core = join(root, "core");
  const [{ output }] = await build({
    configFile: false,
    logLevel: "error",
    resolve: {
      alias: [{ find: /^@vennet\/core\/(.*)$/, replacement: `${core}/$1.ts` }],
      dedupe: ["prosemirror-model"],
    },
    build: {
      write: false,
      lib: { entry: join(import.meta.dirname, "bare-editor.js"), formats: ["iife"], name: "bare" },
    },
  }).then((built) => [built].flat());
  const assets = join(root, "web/dist/assets");
  const sheet = readdirSync(assets).find((name) => /^index-.*\.css$/.test(name));
  return { script: output[0].code, styles: readFileSync(join(assets, sheet), "utf8") };
}
