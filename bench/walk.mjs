import { writeMarkdown } from "@vennet/core/publish/formats/markdown/write-markdown";
import { seededBook } from "./seeded-book.mjs";
import { bringIn, jobDone, withPage } from "./with-page.mjs";

// A walk over the links of an exported PDF and e-book, each pressed in the reader as readers press it, with its pictures; and
// the first of a walk over thousands.

await withPage(async ({ page }) => {
  const { bytes, isFolder } = writeMarkdown(seededBook({ chapters: 5, words: 3_000, links: 20 }), "book.md");
  const book = await bringIn(page, bytes, isFolder);
  for (const format of ["pdf", "epub"]) {
    const job = await (await page.request.post(`/api/books/${book}/exports`, { data: { format } })).json();
    await jobDone(page, job.id);
    const [{ id: made }] = (await (await page.request.get(`/api/books/${book}/exports`)).json()).filter(
      (one) => one.format === format,
    );
    await page.goto(`/books/${book}/read/${made}`);
    await page.getByRole("button", { name: "Walk the links" }).click();
    const walk = page.getByRole("button", { name: "Walk", exact: true });
    await walk.waitFor();
    const started = performance.now();
    await walk.click();
    await page.getByRole("button", { name: "Walk again" }).waitFor({ timeout: 300_000 });
    const seconds = (performance.now() - started) / 1000;
    const { walk: kept } = (await (await page.request.get(`/api/books/${book}/exports`)).json()).find(
      (one) => one.id === made,
    );
    const walked = kept?.walked ?? 0;
    console.log(
      `A walk of ${walked} links of the ${format}: ${seconds.toFixed(1)} s, ${((1000 * seconds) / walked).toFixed(0)} ms a link (aim: 10 s for 100 links)`,
    );
  }
  await begunOverThousands();

  async function begunOverThousands() {
    const chapter = (n) =>
      `# Chapter ${n}\n\n${Array.from({ length: 100 }, (_, i) => `Ask [stone ${i} of ${n}](https://stone-${i}.hesterley.test/${n}) of the way.`).join("\n\n")}`;
    const long = await bringIn(page, Array.from({ length: 20 }, (_, i) => chapter(i + 1)).join("\n\n"));
    const asked = await page.request.post(`/api/books/${long}/exports`, { data: { format: "epub" } });
    await jobDone(page, (await asked.json()).id);
    const [{ id: made }] = await (await page.request.get(`/api/books/${long}/exports`)).json();
    await page.goto(`/books/${long}/read/${made}`);
    await page.getByRole("button", { name: "Walk the links" }).click();
    const walk = page.getByRole("button", { name: "Walk", exact: true });
    await walk.waitFor();
    const started = performance.now();
    await walk.click();
    await page
      .getByRole("status")
      .filter({ hasText: /^1\d\d of/ })
      .waitFor();
    const walked = Number.parseInt(
      await page.getByRole("status").filter({ hasText: "walked" }).textContent(),
    );
    console.log(
      `The first ${walked} of 2,000: ${((performance.now() - started) / walked).toFixed(0)} ms a link`,
    );
  }
});
