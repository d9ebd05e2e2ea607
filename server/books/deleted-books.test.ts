import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { DeletedBooksService } from "./deleted-books.service.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer({ QUOTA_BOOKS: "3" });
});
afterAll(() => server.close());

const manuscript =
  "# Tides\n\n[The office](https://tides.example/) and [the slip](#slip).\n\n## The slip {#slip}";

/** An author with one book, and another book that was deleted. */
async function shelfWithDeleted(): Promise<{ here: string; gone: string }> {
  author = await server.client().signUp();
  const here: string = (await author.bringIn("# Walks\n\nOver sand.")).body.book.id;
  const gone: string = (await author.bringIn(manuscript)).body.book.id;
  expect((await author.call("DELETE", `/books/${gone}`)).status).toBe(204);
  return { here, gone };
}

const listed = async (): Promise<string[]> =>
  (await author.call<{ id: string }[]>("GET", "/books")).body.map(({ id }) => id);
const deleted = async () =>
  (
    await author.call<{ id: string; title: string; deletedAt: string; keptUntil: string }[]>(
      "GET",
      "/books/deleted",
    )
  ).body;

test("a deleted book is nowhere, and is as it was when it is brought back", async () => {
  const { here, gone } = await shelfWithDeleted();
  expect(await listed()).toEqual([here]);
  expect((await author.call("GET", `/books/${gone}`)).body).toMatchObject({ code: "not-found" });
  expect((await author.call("GET", "/books/states")).body).toEqual([]);
  expect((await author.call("GET", `/books/${here}/shelf/places?words=Tides`)).body).toEqual([]);
  const [row] = await deleted();
  expect(row).toMatchObject({ id: gone, title: "Tides" });
  expect(Date.parse(row!.keptUntil) - Date.parse(row!.deletedAt)).toBe(30 * 24 * 60 * 60_000);

  const back = await author.call("POST", `/books/deleted/${gone}/restore`);
  expect([back.status, back.body]).toEqual([
    200,
    expect.objectContaining({ id: gone, links: 2, chapters: 1 }),
  ]);
  expect((await listed()).sort()).toEqual([here, gone].sort());
  expect(await deleted()).toEqual([]);
  expect((await author.call<unknown[]>("GET", "/books/states")).body).toHaveLength(1);
  expect((await author.call<unknown[]>("GET", `/books/${here}/shelf/places?words=Tides`)).body).toHaveLength(
    2,
  );
  // What is on the Shelf is not deleted for good by the way for what is not.
  expect((await author.call("DELETE", `/books/deleted/${gone}`)).status).toBe(404);
  expect((await author.call("POST", `/books/deleted/${gone}/restore`)).status).toBe(404);
  expect((await author.call("GET", `/books/${gone}`)).status).toBe(200);
});

test("what goes on for a book ends when it is deleted", async () => {
  author = await server.client().signUp();
  // This host never answers.
  const { book } = (await author.bringIn("# T\n\n[a](https://slow.example/)")).body;
  const { id } = (await author.call("POST", `/books/${book.id}/reach`)).body as { id: string };
  await author.call("DELETE", `/books/${book.id}`);
  expect((await author.call("GET", `/jobs/${id}`)).status).toBe(404);
  await author.call("POST", `/books/deleted/${book.id}/restore`);
  expect((await author.call("GET", `/jobs/${id}`)).body).toMatchObject({ state: "cancelled" });
});

test("it is not brought back among as many books as there may be, and its files count until it goes for good", async () => {
  const { gone } = await shelfWithDeleted();
  const form = new FormData();
  form.set("file", new Blob(["12345"]), "tides.txt");
  await author.call("POST", `/books/deleted/${gone}/restore`);
  expect((await author.call("POST", `/books/${gone}/files`, form)).status).toBe(201);
  await author.call("DELETE", `/books/${gone}`);
  for (const title of ["B", "C"]) expect((await author.call("POST", "/books", { title })).status).toBe(201);
  const usage = async () => (await author.call("GET", "/account/usage")).body;
  expect(await usage()).toMatchObject({ books: 3, mostBooks: 3, bytes: 5 });
  const back = await author.call("POST", `/books/deleted/${gone}/restore`);
  expect([back.status, back.body]).toMatchObject([403, { code: "quota" }]);
  expect((await author.call("DELETE", `/books/deleted/${gone}`)).status).toBe(204);
  expect(await usage()).toMatchObject({ books: 3, bytes: 0 });
});

test("it goes for good by itself after thirty days, and nothing that is on the Shelf does", async () => {
  const { here, gone } = await shelfWithDeleted();
  const service = server.app.get(DeletedBooksService);
  const after = (days: number): Date => new Date(Date.now() + days * 24 * 60 * 60_000);
  await service.removeOld(after(29.9));
  expect(await deleted()).toHaveLength(1);
  await service.removeOld(after(30.1));
  expect(await deleted()).toEqual([]);
  expect(await listed()).toEqual([here]);
  const database = server.app.get<DataSource>(getDataSourceToken());
  expect(await database.query("SELECT id FROM chapter WHERE bookId = ?", [gone])).toEqual([]);
});
