import { bringIn, withPage } from "./with-page.mjs";
import { Spread } from "./spread.mjs";

// A chapter of a book of 1,000 chapters, opened and left for another one, beside one of a book of 20; and the longest
// task while its author types and pauses, so that what is typed is saved.

const rounds = 5;
/** In which what was heard of a save is drawn, in ms. */
const pause = 1_000;

await withPage(async ({ page }) => {
  await page.addInitScript(() => {
    const tasks = (window.tasks = []);
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) tasks.push(duration);
    }).observe({ entryTypes: ["longtask"] });
  });
  const [few, many] = [await worked(20), await worked(1_000)];
  for (const name of Object.keys(many))
    console.log(
      `${name} of 1,000 chapters: ${many[name]}, of 20 ${few[name]}: ratio ${many[name].over(few[name])}`,
    );

  async function worked(count) {
    const book = await bringIn(
      page,
      Array.from({ length: count }, (_, i) => chapterOf(i, count)).join("\n\n"),
    );
    const chapters = await (await page.request.get(`/api/books/${book}/chapters`)).json();
    const text = page.getByRole("textbox", { name: "Text of the chapter" });
    const times = {
      "Opening a chapter": [],
      "Going to the next one": [],
      "The longest task in typing and saving": [],
    };
    for (let i = -1; i < rounds; i++) {
      const at = (count >> 1) + i;
      const opening = await timed(async () => {
        await page.goto(`/books/${book}/write/${chapters[at].id}`);
        await text.getByText(`Sand ${at}.`).waitFor();
      });
      const going = await timed(async () => {
        await page.locator(`[data-chapter="${chapters[at + 1].id}"] a`).click();
        await text.getByText(`Sand ${at + 1}.`).waitFor();
      });
      await text.getByText(`Sand ${at + 1}.`).click();
      await page.getByText("Saved", { exact: true }).waitFor();
      await page.evaluate(() => void (window.tasks.length = 0));
      const listedAnew = page.waitForResponse(/\/chapters$/);
      await page.keyboard.type("Over the sand. ", { delay: 60 });
      await listedAnew;
      await page.waitForTimeout(pause);
      const longest = await page.evaluate(() => Math.max(50, ...window.tasks));
      // The first round fills what is kept.
      if (i < 0) continue;
      times["Opening a chapter"].push(opening);
      times["Going to the next one"].push(going);
      times["The longest task in typing and saving"].push(longest);
    }
    return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, new Spread(all)]));
  }
});

async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

function chapterOf(i, count) {
  const next = (i * 7) % count;
  return `# Causeway ${i}\n\nSand ${i}. Ask [here](https://stone-${i % 90}.hesterley.test/${i}) or [there](#causeway-${next}).`;
}
