import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

// One author's book of 600 links, in a house where another's has forty times as many in fewer chapters.
const own = 600;
const copies = 240;
const inEach = 100;
let server: TestServer;
let database: DataSource;
let client: Client;
let book: string;
let chapter: string;

beforeAll(async () => {
  server = await startTestServer();
  database = server.app.get(DataSource);
  const line = "Low water is at nine, as [the office](https://tides.hesterley.example/) says.\n\n";
  const other = await server.client().signUp();
  const { id } = (await other.bringIn(`# Long\n\n${line.repeat(inEach)}`)).body.book;
  await copied("chapter", "id", "bookId, position, role, title, document, revision, words", id);
  await copied(
    "link_use",
    "chapterId",
    "bookId, ordinal, linkId, kind, destination, destinationHash, askedAddress, host, askedHash, text, coverage, heading",
    id,
  );
  await copied("place", "chapterId", "bookId, ordinal, placeId, kind, level, text, context", id);
  await database.query("ANALYZE TABLE link_use, chapter, place");
  client = await server.client().signUp();
  book = (await client.bringIn(`# Short\n\n${line.repeat(own)}`)).body.book.id;
  chapter = (await client.call<{ id: string }[]>("GET", `/books/${book}/chapters`)).body[0]!.id;
});
afterAll(() => server.close());

/** Copies a book's rows, each under another chapter's id. */
const copied = (table: string, chapter: string, columns: string, bookId: string): Promise<unknown> =>
  database.query(
    `INSERT INTO ${table} (${chapter}, ${columns})
       SELECT CONCAT(LEFT(one.${chapter}, 31), '-', LPAD(copy.seq, 4, '0')), ${columns}
       FROM ${table} one, seq_1_to_${copies} copy WHERE one.bookId = ?`,
    [bookId],
  );

async function rowsRead(): Promise<number> {
  const rows: { Value: string }[] = await database.query("SHOW GLOBAL STATUS LIKE 'Handler\\_read%'");
  return rows.reduce((sum, { Value }) => sum + Number(Value), 0);
}

test.each([
  "links?sort=text",
  "links?sort=destination&search=office",
  "links/groups",
  "links.csv",
  "places",
  "places/gone",
  "destinations",
  "findings",
  "shelf/places?words=low",
  "",
  "chapters",
  "chapters/CHAPTER/surroundings",
  "checks",
  "report?as=csv",
])("what is asked of a small book (%s) reads nothing of a large one beside it", async (path) => {
  const before = await rowsRead();
  const answer = await client.stream(`/books/${book}/${path.replace("CHAPTER", chapter)}`);
  await answer.text();
  expect(answer.status).toBe(200);
  expect((await rowsRead()) - before).toBeLessThan(copies * inEach);
});
