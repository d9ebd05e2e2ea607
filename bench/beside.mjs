import { seededBook, typeLetter } from "./seeded-book.mjs";
import { Spread } from "./spread.mjs";
import { jobDone, withPage } from "./with-page.mjs";

// The pages beside the text: setting an open chapter of some twenty pages in books of 1, 10 and 50 such chapters, and from the
// last key in it until its new pages stand there.

const words = 6_000;
const rounds = 15;
const warmUp = 4;

await withPage(async ({ page }) => {
  let alone = null;
  for (const chapters of [1, 10, 50]) {
    const { id: book } = await (
      await page.request.post("/api/books", { data: { title: "Causeways" } })
    ).json();
    let open = null;
    for (const { doc } of seededBook({ chapters, words, links: 80 }).chapters) {
      const document = doc.toJSON();
      const made = await page.request.post(`/api/books/${book}/chapters`, {
        data: { title: "Causeway", document },
      });
      open ??= { id: (await made.json()).id, document };
    }
    // As for most authors there is a PDF from before, by which pages of other chapters are known.
    const job = await page.request.post(`/api/books/${book}/exports`, { data: { format: "pdf" } });
    await jobDone(page, (await job.json()).id);
    const times = [];
    for (let round = -warmUp; round < rounds; round++) {
      typeLetter(open.document);
      const started = performance.now();
      const answer = await page.request.post(`/api/books/${book}/exports/chapters/${open.id}/pages`, {
        data: { document: open.document },
      });
      if (!answer.ok()) throw new Error(await answer.text());
      if (round >= 0) times.push(performance.now() - started);
    }
    const set = new Spread(times);
    alone ??= set;
    const shown = await untilShown(page, `/books/${book}/write/${open.id}`);
    console.log(
      `A chapter of ${words.toLocaleString("en")} words in a book of ${chapters}: set in ${set}, ratio to alone ${set.over(alone)} (aim: at most 1.2); from the last key until its pages are there ${shown} (aim: 500 ms)`,
    );
  }
});

/** Types a letter now and then beside the pages, and tells how long until they are those of the text. */
async function untilShown(page, address) {
  await page.goto(address);
  await page.getByRole("button", { name: "Pages", exact: true }).click();
  const state = page.getByRole("region", { name: "Pages beside the text" }).getByRole("status");
  const asNow = "As the text is now";
  await state.getByText(asNow).waitFor({ timeout: 60_000 });
  await page.locator(".ProseMirror p").first().click();
  const times = [];
  for (let round = -warmUp; round < rounds; round++) {
    await page.evaluate((wanted) => {
      const column = document.querySelector("[aria-label='Pages beside the text']");
      const said = column.querySelector("[role=status]");
      globalThis.shown = new Promise((resolve) => {
        let last = null;
        addEventListener("keydown", () => (last = performance.now()), { once: true, capture: true });
        // A page that is painted anew sets the size of what it is painted on.
        new MutationObserver((_, observer) => {
          if (last === null || said.textContent !== wanted) return;
          observer.disconnect();
          resolve(performance.now() - last);
        }).observe(column.querySelector("canvas"), { attributes: true });
      });
    }, asNow);
    await page.keyboard.type("a");
    const ms = await page.evaluate(() => globalThis.shown);
    if (round >= 0) times.push(ms);
  }
  await page.getByRole("button", { name: "Pages", exact: true }).click();
  return new Spread(times);
}
