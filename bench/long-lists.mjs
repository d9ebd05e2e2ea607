import { bringIn, jobDone, withPage } from "./with-page.mjs";
import { Spread } from "./spread.mjs";

// What lists a book's links whole, opened for 8,000 links, beside 100; and frames of that list while a run fills it in.

const rounds = 5;
const runWatched = 10_000;

await withPage(async ({ page }) => {
  const short = await opened(1);
  const long = await opened(80);
  for (const name of Object.keys(long))
    console.log(
      `${name} of 8,000 links: ${long[name]}, of 100 ${short[name]}: ratio ${long[name].over(short[name])}`,
    );
  await page.getByRole("button", { name: "Check all" }).click();
  const frames = await page.evaluate(
    (most) =>
      new Promise((done) => {
        const times = [];
        const began = performance.now();
        let last = began;
        const frame = () => {
          const now = performance.now();
          times.push(now - last);
          last = now;
          if (now - began > most) done(times.sort((a, b) => a - b));
          else requestAnimationFrame(frame);
        };
        requestAnimationFrame(frame);
      }),
    runWatched,
  );
  await page.getByRole("button", { name: "Cancel the run" }).click();
  await page.getByRole("button", { name: "Check all" }).waitFor();
  const at = (share) => frames[Math.floor((frames.length - 1) * share)].toFixed(0);
  console.log(
    `  a frame while these are checked: ${at(0.5)} ms, 95th percentile ${at(0.95)}, at most ${at(1)}`,
  );

  /** Brings a book of so many chapters in, and ends on the list of its destinations. */
  async function opened(chapters) {
    const book = await bringIn(
      page,
      Array.from({ length: chapters }, (_, i) => chapterOf(i + 1)).join("\n\n"),
    );
    const { id } = await (
      await page.request.post(`/api/books/${book}/exports`, { data: { format: "web" } })
    ).json();
    await jobDone(page, id);
    const [made] = await (await page.request.get(`/api/books/${book}/exports`)).json();
    const pages = {
      Findings: [`/books/${book}/checks/findings`, "[data-finding]"],
      "A link proof": [`/books/${book}/export/${made.id}`, "tbody tr"],
      Checks: [`/books/${book}/checks`, "article"],
    };
    const times = {};
    for (const [name, [path, row]] of Object.entries(pages)) {
      const all = [];
      for (let i = -1; i < rounds; i++) {
        const began = performance.now();
        await page.goto(path);
        await page.locator(row).first().waitFor();
        if (i >= 0) all.push(performance.now() - began);
      }
      times[name] = new Spread(all);
    }
    return times;
  }
});

function chapterOf(n) {
  const links = Array.from({ length: 100 }, (_, i) => `[here](https://stone-${i}.hesterley.test/${n})`);
  return `# Chapter ${n}\n\n${links.map((link) => `Ask ${link} of the way.`).join("\n\n")}`;
}
