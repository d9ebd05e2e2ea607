import mysql from "mysql2/promise";
import { bringIn, withPage } from "./with-page.mjs";

// Two measurements of links in number: every mention of a phrase in 40 chapters, and the ledger of up to 200,000 links. Each
// stands beside something bare, in the same run.

const words = (n) =>
  Array.from({ length: n }, (_, i) => ["tide", "stone", "sand", "wind", "mark"][i % 5]).join(" ");
const percentile = (times, share) => [...times].sort((a, b) => a - b)[Math.floor(times.length * share)];
const ms = (n) => `${n.toFixed(1)} ms`;

await withPage(async ({ page, environment }) => {
  await mentions();
  await ledger();

  /** 1,000 mentions in 40 chapters found and linked, beside reading and writing the same documents bare. */
  async function mentions() {
    const chapter = (n) =>
      `# Chapter ${n}\n\n${Array.from({ length: 25 }, () => `${words(40)} the tide office ${words(40)}`).join("\n\n")}`;
    const book = await bringIn(page, Array.from({ length: 40 }, (_, i) => chapter(i + 1)).join("\n\n"));
    const post = async (path, data) =>
      (await page.request.post(`/api/books/${book}${path}`, { data, timeout: 120_000 })).json();
    const began = performance.now();
    const { chapters } = await post("/links/search", { phrase: "tide office" });
    const found = performance.now();
    const destination = { kind: "web", address: "https://tides.hesterley.example/" };
    const links = chapters.flatMap(({ chapterId, revision, mentions }) =>
      mentions.map(({ from, to }) => ({ chapterId, revision, from, to, destination })),
    );
    await post("/links", { kind: "mentions", of: "tide office", links });
    const linked = performance.now();
    const listed = await (await page.request.get(`/api/books/${book}/chapters`)).json();
    const bareBegan = performance.now();
    for (const { id } of listed) {
      const one = await (await page.request.get(`/api/books/${book}/chapters/${id}`)).json();
      await page.request.put(`/api/books/${book}/chapters/${id}`, {
        data: { revision: one.revision, document: one.document },
      });
    }
    const bare = performance.now() - bareBegan;
    console.log(`${links.length} mentions in ${chapters.length} chapters`);
    console.log(
      `  found in ${ms(found - began)}, linked in ${ms(linked - found)}; each of the 40 chapters read and saved once by itself ${ms(bare)}: ratio ${((linked - began) / bare).toFixed(2)}`,
    );
  }

  /** A page of the ledger out of 2,000, 20,000 and 200,000 links in every order, and scrolling through all of them. */
  async function ledger() {
    const chapter = (n) =>
      `# Chapter ${n}\n\n${Array.from({ length: 500 }, (_, i) => `[link ${i}](https://stone-${(i % 250) + 1}.hesterley.test/${n}/${i})`).join(" ")}`;
    const database = await mysql.createConnection(environment.DATABASE_URL.replace(/^mariadb:/, "mysql:"));
    const timed = async (work) => {
      const times = [];
      for (let i = 0; i < 12; i++) {
        const began = performance.now();
        await work(i);
        times.push(performance.now() - began);
      }
      return { first: times[0], middle: percentile(times, 0.5), most: Math.max(...times.slice(2)) };
    };
    let book;
    for (const copies of [1, 10, 100]) {
      book = await bringIn(page, Array.from({ length: 4 }, (_, i) => chapter(i + 1)).join("\n\n"));
      // So many chapters are copied in the database: bringing them in would take longer than all else here.
      const of = (table, columns, place, values = columns) =>
        database.query(
          `INSERT INTO ${table} (${place}, ${columns}) SELECT CONCAT(LEFT(one.${place}, 31), '-', LPAD(copy.seq, 4, '0')), ${values} FROM ${table} one, seq_1_to_${copies - 1} copy WHERE one.bookId = ?`,
          [book],
        );
      if (copies > 1) {
        await of("chapter", "bookId, position, role, title, document, revision, words", "id");
        const links =
          "bookId, ordinal, linkId, kind, destination, destinationHash, askedAddress, host, askedHash, text, coverage, heading";
        // Each copy leads elsewhere.
        const elsewhere = links.replace("destinationHash", "SHA2(CONCAT(destinationHash, copy.seq), 256)");
        await of("link_use", links, "chapterId", elsewhere);
        await of("place", "bookId, ordinal, placeId, kind, level, text, context", "chapterId");
      }
      // What asking showed of four destinations in five, with as much text as it is kept with.
      await database.query(
        `INSERT INTO reach_outcome (bookId, destinationHash, state, code, hops, checkedAt, since, fingerprint)
           SELECT DISTINCT bookId, destinationHash, ELT(1 + CRC32(destinationHash) % 4, 'broken', 'moved', 'sound', 'unsure'), 'ok',
             '[]', NOW(3) - INTERVAL CRC32(destinationHash) % 100000 SECOND, NOW(3), CONCAT('"', REPEAT('stone ', 150), '"')
           FROM link_use WHERE bookId = ? AND CRC32(CONCAT(destinationHash, 'known')) % 5 > 0`,
        [book],
      );
      await database.query("ANALYZE TABLE link_use, chapter, place, reach_outcome");
      const all = 2000 * copies;
      const { middle: bare } = await timed((i) =>
        database.query("SELECT * FROM link_use WHERE bookId = ? LIMIT 200 OFFSET ?", [
          book,
          Math.floor((i * all) / 24),
        ]),
      );
      const asked = {
        "in reading order": "",
        "by words": "&sort=text",
        "by destination": "&sort=destination",
        "by state": "&sort=state",
        "in one state": "&state=broken",
        "of a chapter or kind": "&kind=web",
        searched: "&search=stone-17",
      };
      const told = [];
      for (const [what, more] of Object.entries(asked)) {
        const { first, middle, most } = await timed(async (i) => {
          const answer = await page.request.get(
            `/api/books/${book}/links?limit=200&offset=${Math.floor((i * all) / 24)}${more}`,
          );
          if (!answer.ok()) throw new Error(await answer.text());
        });
        told.push(
          `${what} ${ms(middle)} (${(middle / bare).toFixed(1)}; ${ms(first)} at first, then at most ${ms(most)})`,
        );
      }
      const { middle: ofBook, most: mostOfBook } = await timed(() => page.request.get(`/api/books/${book}`));
      const { middle: ofShelf } = await timed(() => page.request.get("/api/books"));
      const { middle: ofStates } = await timed(() => page.request.get("/api/books/states"));
      told.push(
        `what each of its pages asks of the book itself ${ms(ofBook)} (at most ${ms(mostOfBook)}); the Shelf ${ms(ofShelf)}, and the states on it ${ms(ofStates)}`,
      );
      console.log(
        `200 rows of the ledger of ${all} links, beside a bare query of 200 rows, ${ms(bare)} (aim: at most 1.5)`,
      );
      console.log(`  ${told.join("\n  ")}`);
    }
    await database.end();
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`/books/${book}/links`);
    await page.getByRole("row").nth(5).waitFor();
    const frames = await page.evaluate(async () => {
      const table = document.querySelector('[role="table"]');
      const times = [];
      let last = performance.now();
      const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
      for (let i = 0; i < 300; i++) {
        table.scrollTop += 120;
        await frame();
        const now = performance.now();
        times.push(now - last);
        last = now;
      }
      return times.slice(10);
    });
    console.log(
      `  scrolling the last: a frame takes ${ms(percentile(frames, 0.5))} in the middle, ${ms(percentile(frames, 0.95))} at the 95th percentile (a screen shows one in 16.7 ms)`,
    );
  }
});
