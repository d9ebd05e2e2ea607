import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import { openExport } from "@vennet/core/proof/exported-folder";
import { writeDocx } from "@vennet/core/publish/formats/docx/write-docx";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { DataSource } from "typeorm";
import { Job } from "../jobs/job.entity.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { startServerProcess } from "../test/server-process.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

const picture = readFileSync(join(import.meta.dirname, "../../demo/manuscript/pictures/monks-path.png"));

let server: TestServer;
let author: Client;
let database: DataSource;

beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  database = server.app.get<DataSource>(getDataSourceToken());
});
afterAll(() => server.close());

const uploads = async (): Promise<number> =>
  (await database.query("SELECT COUNT(*) AS count FROM stored_file WHERE role = 'upload'"))[0].count;

test("a manuscript becomes new chapters of a book, behind its own and before its companion pages", async () => {
  const { book } = (await author.bringIn("# Tides\n\n[a](https://a.example/)")).body;
  await author.call("POST", `/books/${book.id}/chapters`, { title: "What to pack", role: "companion" });
  const before = (await author.call<any>("GET", `/books/${book.id}`)).body;
  const text = "# Sands\n\n[b](https://b.example/) ![Path](path.png)\n\n# Boats\n\n<mark>c</mark>";
  const { status, body } = await author.bringIn(text, {}, { "path.png": picture }, book.id);
  expect(status).toBe(200);
  expect(body).toMatchObject({
    book: { id: book.id, title: "Tides", chapters: 4, links: 2 },
    chapters: 2,
    leftOut: [{ where: "line 7", what: expect.stringContaining("Highlighting") }],
  });
  const chapters = (await author.call<any>("GET", `/books/${book.id}/chapters`)).body;
  expect(chapters.map(({ title }: any) => title)).toEqual(["Tides", "Sands", "Boats", "What to pack"]);
  expect((await author.call<any>("GET", `/books/${book.id}`)).body.modifiedAt > before.modifiedAt).toBe(true);
  expect(await database.query("SELECT role FROM stored_file WHERE bookId = ?", [book.id])).toEqual([
    { role: "picture" },
  ]);
  expect(await uploads()).toBe("0");
});

test("a text document comes in with its chapters, links and pictures", async () => {
  const { main } = openExport((await writeDocx(bookOfEveryFeature(), "walks.docx")).bytes);
  const form = new FormData();
  form.set("manuscript", new Blob([main as BlobPart]), "walks.docx");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  expect(await author.jobEnd(begun)).toMatchObject({ state: "done" });
  const { book } = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  const { rows } = (await author.call<any>("GET", `/books/${book.id}/links?kind=web&search=the+inn`)).body;
  expect(rows).toMatchObject([{ text: "the inn", destination: "https://tides.hesterley.example/inn" }]);
  const [{ pictures }] = await database.query(
    "SELECT COUNT(*) AS pictures FROM stored_file WHERE bookId = ? AND role = 'picture'",
    [book.id],
  );
  expect(Number(pictures)).toBeGreaterThan(0);
});

test("it is read as a job, of whoever sent it alone, and one that fails leaves nothing behind", async () => {
  const form = new FormData();
  form.set("manuscript", new Blob([new Uint8Array([0xff, 0xfe, 0, 1])]), "walks.md");
  const begun = await author.call<any>("POST", "/books/import", form);
  expect([begun.status, begun.body.kind, begun.body.bookId]).toEqual([202, "import", null]);
  const stranger = await server.client().signUp();
  expect((await stranger.call("GET", `/jobs/${begun.body.id}`)).status).toBe(404);
  expect(await author.jobEnd(begun.body)).toMatchObject({
    state: "failed",
    message: expect.stringContaining("It reads Markdown"),
  });
  expect((await author.call("GET", `/jobs/${begun.body.id}/import`)).status).toBe(404);
  expect(await uploads()).toBe("0");
});

test("an import that is cancelled makes no book, and keeps nothing that was sent", async () => {
  const before = (await author.call<unknown[]>("GET", "/books")).body.length;
  const form = new FormData();
  const words = `${"word ".repeat(50)}[a](https://a.example/)\n\n`;
  form.set("manuscript", new Blob([`# T\n\n${words.repeat(8_000)}`]), "walks.md");
  const { body } = await author.call<any>("POST", "/books/import", form);
  expect((await author.call("DELETE", `/jobs/${body.id}`)).status).toBe(204);
  expect(await author.jobEnd(body)).toMatchObject({ state: "cancelled" });
  expect((await author.call<unknown[]>("GET", "/books")).body.length).toBe(before);
  expect(await uploads()).toBe("0");
});

test("one that a stop interrupts in the middle is taken up again at the next start", async () => {
  const first = await startServerProcess();
  const walker = await first.client().signUp();
  const form = new FormData();
  const words = `${"word ".repeat(50)}[a](https://a.example/)\n\n`;
  form.set("manuscript", new Blob([`# Long walks\n\n${words.repeat(8_000)}`]), "walks.md");
  const { body } = await walker.call<any>("POST", "/books/import", form);
  while ((await walker.call<any>("GET", `/jobs/${body.id}`)).body.state === "waiting");
  await first.stop();
  const second = await startServerProcess();
  try {
    const next = second.client();
    next.cookie = walker.cookie;
    expect(await next.jobEnd(body)).toMatchObject({ state: "done", message: "1 chapter came in." });
    const books = (await next.call<any[]>("GET", "/books")).body;
    expect(books.map(({ title, links }) => [title, links])).toEqual([["Long walks", 8_000]]);
    expect(await uploads()).toBe("0");
  } finally {
    await second.stop();
  }
});

test("one that a stop interrupted after all was written makes no second book", async () => {
  const form = new FormData();
  form.set("manuscript", new Blob(["# T"]), "walks.md");
  const { body } = await author.call<any>("POST", "/books/import", form);
  await author.jobEnd(body);
  const before = (await author.call<unknown[]>("GET", "/books")).body.length;
  await database.manager.update(Job, { id: body.id }, { state: "waiting" });
  await server.app.get(JobsService).onApplicationBootstrap();
  expect(await author.jobEnd(body)).toMatchObject({ state: "done", message: "1 chapter came in." });
  expect((await author.call<unknown[]>("GET", "/books")).body.length).toBe(before);
});
