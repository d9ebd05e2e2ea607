import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import mysql from "mysql2/promise";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { seededBook, typeLetter } from "./seeded-book.mjs";
import { Spread } from "./spread.mjs";

// What pages of the interface ask for, in a house of one book with 500 links, and again when there are 2,000 books like it,
// a million links in all, that belong to 500 others.

const books = 2_000;
const accounts = 500;
const chapters = 10;
const rounds = 25;
const warmUp = 15;
const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
const processes = new Processes();
let database;

try {
  const { address, environment } = await startServices(processes, folder, await freePort());
  database = await mysql.createConnection(environment.DATABASE_URL.replace(/^mariadb:/, "mysql:"));
  let cookie = null;
  const call = async (method, path, body) => {
    const answer = await fetch(`${address}/api${path}`, {
      method,
      headers: {
        ...(cookie ? { cookie } : {}),
        ...(body ? { "content-type": "application/json" } : {}),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text.slice(0, 300)}`);
    cookie ??= answer.headers.get("set-cookie")?.split(";")[0];
    return text === "" ? null : JSON.parse(text);
  };
  const jobEnd = async (id) => {
    await (await fetch(`${address}/api/jobs/${id}/events`, { headers: { cookie } })).text();
  };

  await call("POST", "/accounts", {
    name: "Pell",
    email: "pell@authors.example",
    password: "a long password",
  });
  const book = (await call("POST", "/books", { title: "All causeways" })).id;
  let chapter = null;
  for (const { doc } of seededBook({ chapters, words: 600, links: 50 }).chapters) {
    const document = doc.toJSON();
    const { id, revision } = await call("POST", `/books/${book}/chapters`, { title: "Causeway", document });
    chapter ??= { id, revision, document };
  }
  await jobEnd((await call("POST", `/books/${book}/reach`, { which: "all" })).id);
  await jobEnd((await call("POST", `/books/${book}/exports`, { format: "epub" })).id);
  const { rows } = await call("GET", `/books/${book}/links?limit=200`);
  const web = rows.find(({ kind }) => kind === "web").destination;
  const at = `/books/${book}`;
  const asked = {
    "the Shelf": () => Promise.all([call("GET", "/books"), call("GET", "/books/states")]),
    "the book and its chapters": () => Promise.all([call("GET", at), call("GET", `${at}/chapters`)]),
    "a chapter": () => call("GET", `${at}/chapters/${chapter.id}`),
    "what its rules are told": () => call("GET", `${at}/chapters/${chapter.id}/surroundings`),
    "its versions": () => call("GET", `${at}/chapters/${chapter.id}/versions`),
    "a save": async () => {
      typeLetter(chapter.document);
      const { revision, document } = chapter;
      chapter.revision = (await call("PUT", `${at}/chapters/${chapter.id}`, { revision, document })).revision;
    },
    "places and files": () =>
      Promise.all(["places", "places/gone", "files"].map((what) => call("GET", `${at}/${what}`))),
    "known destinations": () => call("GET", `${at}/destinations`),
    "the ledger": () => call("GET", `${at}/links?limit=200`),
    "the ledger by destination, its groups": () =>
      Promise.all([call("GET", `${at}/links?limit=200&sort=destination`), call("GET", `${at}/links/groups`)]),
    "the ledger, searched": () => call("GET", `${at}/links?limit=200&search=tide`),
    findings: () => call("GET", `${at}/findings`),
    "checks and runs": () =>
      Promise.all(["checks", "reach", "reach/runs"].map((what) => call("GET", `${at}/${what}`))),
    "the past of an address": () =>
      call("GET", `${at}/destinations/history?address=${encodeURIComponent(web)}`),
    "exports and steps": () =>
      Promise.all(["exports", "exports/latest-job", "steps"].map((what) => call("GET", `${at}/${what}`))),
    "places of the Shelf": () => call("GET", `${at}/shelf/places?words=stone`),
    "what an account takes": () => call("GET", "/account/usage"),
  };
  const alone = await measured(asked);
  await fill(book);
  const [[{ links }]] = await database.query("SELECT COUNT(*) AS links FROM link_use");
  console.log(
    `${books} books of ${accounts} others, ${links.toLocaleString("en")} links, beside the one that is looked at`,
  );
  const among = await measured(asked);
  for (const name of Object.keys(asked))
    console.log(
      `  ${name}: ${among[name]}, in a house of its own ${alone[name]}: ratio ${among[name].over(alone[name])} (aim: at most 1.3)`,
    );

  async function measured(works) {
    const times = Object.fromEntries(Object.keys(works).map((name) => [name, []]));
    for (let round = -warmUp; round < rounds; round++) {
      for (const [name, work] of Object.entries(works)) {
        const started = performance.now();
        await work();
        if (round >= 0) times[name].push(performance.now() - started);
      }
    }
    return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, new Spread(all)]));
  }

  /** Fills the house with books like this one: each row of it again, under ids that begin with the book's number. */
  async function fill(original) {
    await database.query("SET SESSION max_recursive_iterations = 100000, foreign_key_checks = 0");
    await database.query(
      `CREATE TABLE bench_copy AS WITH RECURSIVE n (number) AS (SELECT 1 UNION ALL SELECT number + 1 FROM n WHERE number < ${books})
         SELECT number, LPAD(HEX(number), 8, '0') AS head, CONCAT(LPAD(HEX(number % ${accounts}), 8, 'a'), '-0000-4000-8000-000000000000') AS accountId FROM n`,
    );
    await database.query(
      `INSERT INTO account (id, email, name, passwordHash)
         SELECT DISTINCT c.accountId, CONCAT(c.accountId, '@authors.example'), a.name, a.passwordHash FROM bench_copy c, account a
         WHERE a.email = 'pell@authors.example'`,
    );
    const [tables] = await database.query(
      `SELECT TABLE_NAME AS name FROM information_schema.COLUMNS
         WHERE TABLE_SCHEMA = DATABASE() AND COLUMN_NAME = 'bookId' AND TABLE_NAME NOT LIKE 'bench%'`,
    );
    for (const { name, key } of [{ name: "book", key: "id" }, ...tables]) {
      const [columns] = await database.query(
        `SELECT COLUMN_NAME AS name, COLUMN_TYPE AS type, EXTRA AS extra FROM information_schema.COLUMNS
           WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ?`,
        [name],
      );
      const own = columns.filter(({ extra }) => !/auto_increment/.test(extra));
      const value = (column) =>
        column.name === "accountId"
          ? "c.accountId"
          : column.type === "char(36)"
            ? `CONCAT(c.head, SUBSTR(t.\`${column.name}\`, 9))`
            : `t.\`${column.name}\``;
      await database.query(
        `INSERT INTO \`${name}\` (${own.map((column) => `\`${column.name}\``).join(", ")})
           SELECT ${own.map(value).join(", ")} FROM \`${name}\` t, bench_copy c WHERE t.\`${key ?? "bookId"}\` = ?`,
        [original],
      );
    }
    await database.query("ANALYZE TABLE book, chapter, link_use, place, reach_outcome, reach_answer");
  }
} finally {
  await database?.end();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
