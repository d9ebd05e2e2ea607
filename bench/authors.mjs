import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import mysql from "mysql2/promise";
import { Agent, fetch } from "undici";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { memoryNow } from "./memory.mjs";
import { seededBook } from "./seeded-book.mjs";
import { Spread } from "./spread.mjs";

// What a save costs beside one bare transaction that writes as much, and what authors feel of each other: 10, 50 and 100 of
// them read, save and look at their ledgers every two seconds while a reach run and an export go on, beside the same
// requests one at a time.

const chapters = 3;
const pauseMs = 2_000;
const lastsMs = 30_000;
const crowds = [10, 50, 100];
const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
const processes = new Processes();
let database;
let first;

try {
  const { address, environment, pid } = await startServices(processes, folder, await freePort());
  database = await mysql.createConnection(environment.DATABASE_URL.replace(/^mariadb:/, "mysql:"));
  const dispatcher = new Agent({ connections: 256 });
  const docs = seededBook({ chapters, words: 3_000, links: 40 }).chapters.map(({ doc }) => doc.toJSON());

  /** Somebody with a book of three chapters, and what they do with it. */
  class Author {
    static async begin(number) {
      const author = new Author();
      const [id, email, token] = [randomUUID(), `author-${number}@authors.example`, randomUUID()];
      if (first) {
        // So many accounts at once are refused: these are put there, each with a session.
        await database.query(
          "INSERT INTO account (id, email, name, passwordHash) SELECT ?, ?, name, passwordHash FROM account WHERE email LIKE 'author-0@%'",
          [id, email],
        );
        await database.query(
          `INSERT INTO session (tokenHash, id, accountId, device, createdAt, lastSeenAt, expiresAt)
             VALUES (SHA2(?, 256), ?, ?, 'bench', NOW(3), NOW(3), NOW(3) + INTERVAL 1 DAY)`,
          [token, id, id],
        );
        author.cookie = first.cookie.replace(/=.*/, `=${token}`);
      } else {
        await author.call("POST", "/accounts", { name: "Pell", email, password: "a long password" });
      }
      author.book = (await author.call("POST", "/books", { title: `Book ${number}` })).id;
      author.texts = [];
      for (const document of docs) author.texts.push(await author.add(document));
      return author;
    }

    async call(method, path, body) {
      const answer = await fetch(`${address}/api${path}`, {
        method,
        dispatcher,
        headers: {
          ...(this.cookie ? { cookie: this.cookie } : {}),
          ...(body ? { "content-type": "application/json" } : {}),
        },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      const text = await answer.text();
      if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text.slice(0, 300)}`);
      this.cookie ??= answer.headers.get("set-cookie")?.split(";")[0];
      return text === "" ? null : JSON.parse(text);
    }

    async add(document) {
      const made = await this.call("POST", `/books/${this.book}/chapters`, { title: "Causeway", document });
      return { id: made.id, revision: made.revision, document: structuredClone(document) };
    }

    read(at = 0) {
      return this.call("GET", `/books/${this.book}/chapters/${this.texts[at % chapters].id}`);
    }

    /** Types a letter, or changes the words of a link, and saves. */
    async save(at = 0, changesLink = false) {
      const text = this.texts[at % chapters];
      const isLink = ({ marks }) => marks?.some(({ type }) => type === "link");
      const words = text.document.content
        .flatMap(({ type, content }) => (type === "paragraph" ? content : []))
        .find((one) => one.type === "text" && Boolean(isLink(one)) === changesLink);
      words.text = `${words.text[0] === "a" ? "b" : "a"}${words.text.slice(1)}`;
      const { revision, document, id } = text;
      const saved = await this.call("PUT", `/books/${this.book}/chapters/${id}`, { revision, document });
      text.revision = saved.revision;
    }

    ledger() {
      return this.call("GET", `/books/${this.book}/links?limit=200`);
    }
  }

  const timed = async (work) => {
    const started = performance.now();
    await work();
    return performance.now() - started;
  };
  first = await Author.begin(0);
  await saving();

  const authors = [first];
  for (const crowd of crowds) {
    while (authors.length < crowd) authors.push(await Author.begin(authors.length));
    await together(authors.slice(0, crowd));
  }

  /** A save alone, beside one transaction that writes the same bytes, and the same rows where links have changed. */
  async function saving() {
    const { id, document } = first.texts[0];
    for (const table of ["chapter", "link_use", "place"]) {
      await database.query(`CREATE TABLE bare_${table} LIKE ${table}`);
      const key = table === "chapter" ? "id" : "chapterId";
      await database.query(`INSERT INTO bare_${table} SELECT * FROM ${table} WHERE ${key} = ?`, [id]);
    }
    const bare = async (hasRows, turn) => {
      const text = `${JSON.stringify(document)}${" ".repeat(turn)}`;
      await database.beginTransaction();
      await database.query("UPDATE bare_chapter SET document = ?, revision = revision + 1 WHERE id = ?", [
        text,
        id,
      ]);
      if (hasRows) {
        const [rows] = await database.query("SELECT * FROM link_use WHERE chapterId = ?", [id]);
        await database.query("DELETE FROM bare_link_use WHERE chapterId = ?", [id]);
        await database.query("INSERT INTO bare_link_use VALUES ?", [rows.map(Object.values)]);
      }
      await database.commit();
    };
    const times = { words: [], bareWords: [], links: [], bareLinks: [] };
    for (let turn = 0; turn < 60; turn++) {
      times.bareWords.push(await timed(() => bare(false, turn)));
      times.words.push(await timed(() => first.save(0)));
      times.bareLinks.push(await timed(() => bare(true, turn)));
      times.links.push(await timed(() => first.save(0, true)));
    }
    const [words, bareWords, links, bareLinks] = Object.values(times).map((all) => new Spread(all.slice(10)));
    console.log(
      `A save of a chapter of 3,000 words and 40 links, alone (${JSON.stringify(document).length} bytes)`,
    );
    console.log(
      `  words typed: ${words}, a bare transaction ${bareWords}: ratio ${words.over(bareWords)} (aim: at most 2)`,
    );
    console.log(
      `  a link changed: ${links}, a bare transaction ${bareLinks}: ratio ${links.over(bareLinks)} (aim: at most 2)`,
    );
  }

  async function together(crowd) {
    const alone = { read: [], save: [], ledger: [] };
    for (let turn = 0; turn < 40; turn++) {
      for (const what of ["read", "save", "ledger"])
        alone[what].push(await timed(() => crowd[turn % crowd.length][what](turn)));
    }
    const times = { read: [], save: [], ledger: [] };
    const ends = performance.now() + lastsMs;
    let most = 0;
    const watch = setInterval(() => (most = Math.max(most, memoryNow(pid))), 500);
    const busy = (async () => {
      while (performance.now() < ends) {
        const [{ book }] = crowd;
        await first.call("POST", `/books/${book}/reach`, { which: "all" }).catch(() => undefined);
        const made = await first.call("POST", `/books/${book}/exports`, { format: "pdf" });
        const events = await fetch(`${address}/api/jobs/${made.job?.id ?? made.id}/events`, {
          headers: { cookie: first.cookie },
          dispatcher,
        });
        await events.text();
      }
    })();
    await Promise.all(
      crowd.map(async (author, i) => {
        await new Promise((resolve) => setTimeout(resolve, (pauseMs * i) / crowd.length));
        for (let turn = i; performance.now() < ends; turn++) {
          for (const what of ["read", "save", "ledger"])
            times[what].push(await timed(() => author[what](turn)));
          await new Promise((resolve) => setTimeout(resolve, pauseMs));
        }
      }),
    );
    await busy;
    clearInterval(watch);
    console.log(
      `${crowd.length} authors at once, each reading, saving and looking at links every 2 s, a reach run and an export going on`,
    );
    for (const [what, all] of Object.entries(times)) {
      const late = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)];
      const [together, apart] = [late(all), late(alone[what])];
      console.log(
        `  ${what}: 95th percentile ${together.toFixed(0)} ms, one at a time ${apart.toFixed(0)} ms: ratio ${(together / apart).toFixed(1)} (aim: at most 3); the longest ${Math.max(...all).toFixed(0)} ms (aim: 1,000), in the middle ${new Spread(all).middle.toFixed(0)} ms`,
      );
    }
    console.log(`  memory of the server at most ${most} MB (aim: 600)`);
  }
} finally {
  await database?.end();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
