import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const demo = join(import.meta.dirname, "../../demo/manuscript");
const picture = readFileSync(join(demo, "pictures/monks-path.png"));

describe("bringing a manuscript in", () => {
  test("makes a book of the demo manuscript, with every link and its picture", async () => {
    const markdown = readFileSync(join(demo, "hesterley-sound.md"), "utf8");
    const { status, body } = await author.bringIn(
      markdown,
      { title: "Causeways" },
      { "monks-path.png": picture },
    );
    expect(status).toBe(200);
    expect(body.arrival).toMatchObject({ groups: [], told: [] });
    expect(body.book).toMatchObject({ title: "Causeways", author: "Pell Arrandine", chapters: 8 });
    expect(body.book.links).toBe(markdown.match(/\]\(|<wardens@/g)!.length);
    const { body: states } = await author.call("GET", "/books/states");
    expect(states).toEqual([{ bookId: body.book.id, webLinks: expect.objectContaining({ broken: 0 }) }]);
    expect(states[0].webLinks.unchecked).toBeGreaterThanOrEqual(40);
  });

  test("lists what it could not take over, with the line", async () => {
    const { body } = await author.bringIn("# T\n\n[x](javascript:alert(1))\n\n![Map](map.png)");
    expect(body.arrival.groups).toMatchObject([
      { verdict: "left-out", links: [{ where: "line 3", words: "x", href: "javascript:alert(1)" }] },
    ]);
    expect(body.arrival.told).toMatchObject([{ items: [{ where: "line 5", what: "The picture map.png" }] }]);
  });

  test("uses the base address for relative links, and says when it is none", async () => {
    const good = await author.bringIn("# T\n\n[x](../a)", { baseAddress: "https://docs.example/guide/one" });
    const destinations = await author.call<{ address: string }[]>(
      "GET",
      `/books/${good.body.book.id}/destinations`,
    );
    expect(destinations.body.map(({ address }) => address)).toEqual(["https://docs.example/a"]);
    expect((await author.bringIn("# T", { baseAddress: "docs" })).body).toMatchObject({
      code: "invalid",
      field: "baseAddress",
    });
    expect((await author.bringIn("# T", { baseAddress: "javascript:x" })).status).toBe(400);
  });

  test("refuses what is not text, and pictures that are none; nothing is left behind", async () => {
    const before = (await author.call<unknown[]>("GET", "/books")).body.length;
    const binary = await author.bringIn(new Uint8Array([0x00, 0x01, 0x41, 0xff]));
    expect([binary.body.state, binary.body.message]).toEqual([
      "failed",
      expect.stringMatching(/not a manuscript that Vennet can read\. It reads Markdown/),
    ]);
    const fake = await author.bringIn(
      "# T",
      {},
      { "a.png": new TextEncoder().encode("<svg onload=alert(1)>") },
    );
    expect([fake.status, fake.body.code]).toEqual([415, "picture-type"]);
    expect((await author.call("POST", "/books/import", new FormData())).body).toMatchObject({
      code: "no-file",
    });
    expect((await author.call<unknown[]>("GET", "/books")).body.length).toBe(before);
  });

  test("refuses more than 50 MB", async () => {
    const { status, body } = await author.bringIn(new Uint8Array(50 * 1024 * 1024 + 1).fill(65));
    expect([status, body.code]).toEqual([413, "too-large"]);
  });
});

test("a book is begun, renamed, and deleted for good with all that it had", async () => {
  const { body } = await author.call("POST", "/books", { title: "Short walks" });
  expect(body).toMatchObject({ title: "Short walks", chapters: 1, links: 0, language: "en" });
  const changed = await author.call("PATCH", `/books/${body["id"]}`, { title: "Kurze Wege", language: "de" });
  expect(changed.body).toMatchObject({ title: "Kurze Wege", language: "de", author: "Pell Arrandine" });
  expect((await author.call("PATCH", `/books/${body["id"]}`, { language: "german" })).body["field"]).toBe(
    "language",
  );
  const form = new FormData();
  form.set("picture", new Blob([picture]), "map.png");
  const file = await author.call("POST", `/books/${body["id"]}/pictures`, form);
  const stored = await fetch(`${server.url}/api/books/${body["id"]}/files/${file.body["id"]}`, {
    headers: { cookie: author.cookie },
  });
  expect(Buffer.from(await stored.arrayBuffer()).equals(picture)).toBe(true);
  expect(stored.headers.get("content-type")).toBe("image/png");
  expect((await author.call("DELETE", `/books/${body["id"]}`)).status).toBe(204);
  expect((await author.call("DELETE", `/books/deleted/${body["id"]}`)).status).toBe(204);
  const database = server.app.get<DataSource>(getDataSourceToken());
  for (const table of ["chapter", "link_use", "stored_file", "job"]) {
    expect([table, await database.query(`SELECT 1 FROM ${table} WHERE bookId = ?`, [body["id"]])]).toEqual([
      table,
      [],
    ]);
  }
  expect(await database.query("SELECT 1 FROM file_chunk WHERE fileId = ?", [file.body["id"]])).toEqual([]);
});

test("links are counted, and their states told, of an author's own books and of chapters that are there", async () => {
  const own = await server.client().signUp();
  const { book } = (
    await own.bringIn(
      "# A\n\n[x](https://a.example/) [y](https://a.example/) [z](mailto:orla@causeways.example)\n\n# B\n\n[x](https://b.example/)",
    )
  ).body;
  await own.call("POST", "/books", { title: "Without links" });
  const database = server.app.get<DataSource>(getDataSourceToken());
  await database.query(
    `INSERT INTO reach_outcome (bookId, destinationHash, state, code, hops, checkedAt, since)
       SELECT DISTINCT bookId, destinationHash, 'moved', 'ok', '[]', NOW(3), NOW(3) FROM link_use
       WHERE bookId = ? AND destination = 'https://a.example/'`,
    [book.id],
  );
  const told = async () => [
    (await own.call("GET", `/books/${book.id}`)).body.links,
    (await own.call<any>("GET", "/books")).body.map(({ links }: { links: number }) => links).sort(),
    (await own.call("GET", "/books/states")).body,
  ];
  const none = { sound: 0, moved: 0, guarded: 0, broken: 0, unsure: 0, unchecked: 0 };
  expect(await told()).toEqual([
    4,
    [0, 4],
    [{ bookId: book.id, webLinks: { ...none, moved: 2, unchecked: 1 } }],
  ]);
  const [first] = (await own.call<any>("GET", `/books/${book.id}/chapters`)).body;
  await own.call("DELETE", `/books/${book.id}/chapters/${first.id}`);
  expect(await told()).toEqual([1, [0, 1], [{ bookId: book.id, webLinks: { ...none, unchecked: 1 } }]]);
});

test("settings that are changed at the same time all stay", async () => {
  const { id } = (await author.call<any>("POST", "/books", { title: "Short walks" })).body;
  for (let round = 1; round <= 15; round++) {
    const changes = [{ title: `Walks ${round}` }, { author: `Orla ${round}` }, { freshHours: round }];
    await Promise.all(changes.map((change) => author.call("PATCH", `/books/${id}`, change)));
    expect((await author.call("GET", `/books/${id}`)).body).toMatchObject(Object.assign({}, ...changes));
  }
});

test("the migrations make exactly the tables that the entities describe", async () => {
  const database = server.app.get<DataSource>(getDataSourceToken());
  expect((await database.driver.createSchemaBuilder().log()).upQueries.map(({ query }) => query)).toEqual([]);
});
