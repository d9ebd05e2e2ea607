import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import { openExport } from "@vennet/core/proof/exported-folder";
import { writeDocx } from "@vennet/core/publish/formats/docx/write-docx";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
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
    arrival: { told: [{ sort: "Highlighting", items: [{ where: "line 7" }] }] },
  });
  const chapters = (await author.call<any>("GET", `/books/${book.id}/chapters`)).body;
  expect(chapters.map(({ title }: any) => title)).toEqual(["Tides", "Sands", "Boats", "What to pack"]);
  expect((await author.call<any>("GET", `/books/${book.id}`)).body.modifiedAt > before.modifiedAt).toBe(true);
  expect(await database.query("SELECT role FROM stored_file WHERE bookId = ?", [book.id])).toEqual([
    { role: "picture" },
  ]);
  expect(await uploads()).toBe("0");
});

test("a text that is longer than a chapter can be comes in as chapters that can be saved", async () => {
  const words = "Low water bares the stone, and the walker keeps to its seaward edge. ".repeat(160);
  const text = Array.from({ length: 400 }, (_, i) => `## Stretch ${i}\n\n${words}`).join("\n\n");
  const { book } = (await author.bringIn(`# Tides\n\n${text}`)).body;
  const chapters = (await author.call<any>("GET", `/books/${book.id}/chapters`)).body;
  expect(chapters.map(({ title }: any) => title)).toEqual(["Tides", "Tides (2)", "Tides (3)"]);
  for (const { id } of chapters) {
    const { revision, document } = (await author.call<any>("GET", `/books/${book.id}/chapters/${id}`)).body;
    document.content[1].content[0].text += "!";
    const saved = await author.call<any>("PUT", `/books/${book.id}/chapters/${id}`, { revision, document });
    expect(saved.status).toBe(200);
  }
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
  form.set("manuscript", new Blob([new Uint8Array([0, 1, 2, 0xff])]), "walks.md");
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
    expect(await next.jobEnd(body)).toMatchObject({ state: "done", message: "3 chapters came in." });
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

test("a manuscript is looked at before it is kept: with its base address, with its files, and once", async () => {
  const before = (await author.call<unknown[]>("GET", "/books")).body.length;
  const form = new FormData();
  const text =
    "# Sands\n\n[plan](files/plan.pdf) [pack](pack.html) ![Path](path.png) [far](https://far.example/)";
  form.set("manuscript", new Blob([text]), "walks.md");
  form.set("review", "yes");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  expect(await author.jobEnd(begun)).toMatchObject({ state: "done" });
  const looked = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  expect(looked).toMatchObject({ book: null, title: "Sands", chapters: 1, links: 3 });
  expect(looked.arrival).toMatchObject({
    counts: { intact: 1, changed: 2, lost: 0 },
    groups: [{ verdict: "changed", mend: "base-address", count: 2 }],
    told: [{ sort: "Pictures that were not brought along" }],
  });
  expect((await author.call<unknown[]>("GET", "/books")).body).toHaveLength(before);

  const more = new FormData();
  more.set("baseAddress", "https://tides.example/guide/");
  more.append("files", new Blob(["%PDF-1.4 plan"]), "plan.pdf");
  more.append("files", new Blob([picture as BlobPart]), "path.png");
  more.append("files", new Blob(["nobody links to it"]), "idle.txt");
  const again = (await author.call<any>("POST", `/jobs/${begun.id}/import/again`, more)).body;
  expect(await author.jobEnd(again)).toMatchObject({ state: "done" });
  const better = (await author.call<any>("GET", `/jobs/${again.id}/import`)).body;
  expect(better.arrival).toMatchObject({ counts: { intact: 3 }, groups: [], told: [] });

  const keeping = (await author.call<any>("POST", `/jobs/${again.id}/import/keep`, { title: " Walks " }))
    .body;
  expect(await author.jobEnd(keeping)).toMatchObject({ state: "done", message: "1 chapter came in." });
  const { book } = (await author.call<any>("GET", `/jobs/${keeping.id}/import`)).body;
  expect(book).toMatchObject({ title: "Walks", links: 3 });
  const { rows } = (await author.call<any>("GET", `/books/${book.id}/links`)).body;
  expect(rows.map(({ kind, destination }: any) => `${kind} ${destination.replace(/:.{36}$/, "")}`)).toEqual([
    "file companion",
    "web https://tides.example/guide/pack.html",
    "web https://far.example/",
  ]);
  const files = await database.query("SELECT name, role FROM stored_file WHERE bookId = ? ORDER BY name", [
    book.id,
  ]);
  expect(files).toEqual([
    { name: "path.png", role: "picture" },
    { name: "plan.pdf", role: "companion" },
  ]);
  expect(await uploads()).toBe("0");
  const arrivals = (await author.call<any>("GET", `/books/${book.id}/arrivals`)).body;
  expect(arrivals).toMatchObject([{ fileName: "walks.md", counts: { intact: 3 } }]);
  const table = await fetch(`${server.url}/api/jobs/${keeping.id}/import/arrival.csv`, {
    headers: { cookie: author.cookie! },
  });
  expect(await table.text()).toContain("link,pack,pack.html,");
  const twice = (await author.call<any>("POST", `/jobs/${again.id}/import/keep`, {})).body;
  expect(await author.jobEnd(twice)).toMatchObject({
    state: "failed",
    message: expect.stringContaining("kept already"),
  });
});

test("what was looked at and not wanted is dropped with all that was sent, and nobody else sees it", async () => {
  const form = new FormData();
  form.set("manuscript", new Blob(["# T\n\n[a](b.pdf)"]), "walks.md");
  form.set("review", "yes");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  await author.jobEnd(begun);
  const stranger = await server.client().signUp();
  for (const path of ["", "/arrival.csv"])
    expect((await stranger.call("GET", `/jobs/${begun.id}/import${path}`)).status).toBe(404);
  expect((await stranger.call("POST", `/jobs/${begun.id}/import/keep`, {})).status).toBe(404);
  expect((await author.call("DELETE", `/jobs/${begun.id}/import`)).status).toBe(204);
  expect((await author.call("GET", `/jobs/${begun.id}/import`)).status).toBe(404);
  expect(await uploads()).toBe("0");
});

test("a book of ours that comes back as a book of its own counts as it did, with pages outside its order", async () => {
  const before = bookOfEveryFeature();
  const form = new FormData();
  form.set("manuscript", new Blob([writeEpub(before) as BlobPart]), "walks.epub");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  expect(await author.jobEnd(begun)).toMatchObject({ state: "done" });
  const { book } = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  expect(book).toMatchObject({ title: "The Causeways", conventions: before.conventions });
  const chapters = (await author.call<any>("GET", `/books/${book.id}/chapters`)).body;
  expect(chapters.map(({ title, role }: any) => `${title}: ${role}`)).toEqual([
    "Walks: chapter",
    "Questions: chapter",
    "Inns: chapter",
    "Gear: chapter",
    "The Log: chapter",
    "Words: companion",
  ]);
});

const svg = new TextEncoder().encode(
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40"><circle cx="30" cy="20" r="9"/></svg>',
);

test("pictures that not every reader shows are drawn, also those beside a text; one that cannot be read keeps nothing out", async () => {
  const form = new FormData();
  const text = "# Sands\n\n![The map](map.svg) ![Torn](torn.svg) [the map itself](map.svg)";
  form.set("manuscript", new Blob([text]), "walks.md");
  form.append("files", new Blob([svg as BlobPart]), "map.svg");
  form.append("files", new Blob(["<svg><rect"]), "torn.svg");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  expect(await author.jobEnd(begun)).toMatchObject({ state: "done" });
  const { book, arrival } = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  expect(arrival.told.map(({ sort }: any) => sort)).toEqual(["Pictures that were not brought along"]);
  const files = await database.query(
    "SELECT name, mediaType, role FROM stored_file WHERE bookId = ? ORDER BY role",
    [book.id],
  );
  expect(files).toEqual([
    { name: "map.svg", mediaType: "image/svg+xml", role: "companion" },
    { name: "map.svg", mediaType: "image/png", role: "picture" },
  ]);
  expect(await uploads()).toBe("0");
});

test("pictures inside a manuscript are drawn, and one that cannot be read is told", async () => {
  const page = `<!doctype html><title>Sands</title><h1>Sands</h1><p><img alt="The map" src="data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}"><img alt="Torn" src="data:image/webp;base64,UklGRkQAAABXRUJQVlA4IDgAAAAQ">`;
  const { body } = await author.bringIn(page);
  expect(body.arrival.told.map(({ sort }: any) => sort)).toEqual(["Pictures that cannot be read"]);
  const files = await database.query("SELECT mediaType, role FROM stored_file WHERE bookId = ?", [
    body.book.id,
  ]);
  expect(files).toEqual([{ mediaType: "image/png", role: "picture" }]);
});
