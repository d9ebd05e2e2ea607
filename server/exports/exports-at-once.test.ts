import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { WorkerPools, type LaneLoad } from "../workers/worker-pools.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let database: DataSource;
let bookId: string;

beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  database = server.app.get<DataSource>(getDataSourceToken());
  bookId = (await author.bringIn("# Tides\n\n[the office](https://tides.example/) [gone](#nowhere)")).body
    .book.id;
});
afterAll(() => server.close());

test("the list of exports tells proofs in numbers, and reads none of them", async () => {
  await author.exported(bookId, "markdown");
  const told = (await author.call<any[]>("GET", `/books/${bookId}/exports`)).body[0];
  expect(told).toMatchObject({ complete: false, intact: 1, total: 2, extra: 0, madeWrong: 0 });
  // A proof that cannot be read shows whether anybody tries to.
  await database.query("UPDATE export SET proof = 'unreadable' WHERE id = ?", [told.id]);
  expect((await author.call<any[]>("GET", `/books/${bookId}/exports`)).body).toEqual([told]);
  expect((await author.call("GET", `/books/${bookId}/exports/${told.id}`)).status).toBe(500);
  await database.query("DELETE FROM export WHERE id = ?", [told.id]);
});

test("an export tells the revision of the very text that is in it, whatever is saved while it is made", async () => {
  const [chapter] = (await author.call<any>("GET", `/books/${bookId}/chapters`)).body;
  const path = `/books/${bookId}/chapters/${chapter.id}`;
  const { document, revision } = (await author.call<any>("GET", path)).body;
  let saved = revision;
  let isDone = false;
  const saving = (async () => {
    while (!isDone) {
      document.content[1].content[0].marks[0].attrs.description = `Saved after ${saved}`;
      const body = { document, revision: saved };
      saved = (await author.call<any>("PUT", path, body)).body.revision;
    }
  })();
  for (let i = 0; i < 5; i++) await author.exported(bookId, "markdown");
  isDone = true;
  await saving;
  const { body } = await author.call<any[]>("GET", `/books/${bookId}/exports`);
  expect(body).toHaveLength(5);
  for (const one of body) {
    const proof = (await author.call<any>("GET", `/books/${bookId}/exports/${one.id}`)).body;
    // A save at revision n made the text of revision n + 1.
    expect([one.revision, proof.rows[0].description]).toEqual([
      one.revision,
      one.revision === revision ? null : `Saved after ${one.revision - 1}`,
    ]);
  }
});

test("a short book goes out while long ones of others hold every process for long books", async () => {
  const long =
    `# Tides\n\n${"The causeway is dry for three hours at low water. ".repeat(12).trim()}\n\n`.repeat(500);
  const others = await Promise.all(
    ["first", "second", "third"].map(async () => {
      const client = await server.client().signUp();
      const { id } = (await client.bringIn(long)).body.book;
      const job = (await client.call<any>("POST", `/books/${id}/exports`, { format: "pdf" })).body;
      return { client, job };
    }),
  );
  const states = (): Promise<string[]> =>
    Promise.all(
      others.map(async ({ client, job }) => (await client.call<any>("GET", `/jobs/${job.id}`)).body.state),
    );
  const pools = server.app.get(WorkerPools);
  const lane = (): LaneLoad => pools.load().find((one) => one.lane === "exportLongBook")!;
  while (lane().running < lane().processes) await new Promise((resolve) => setTimeout(resolve, 20));
  await author.exported(bookId, "pdf");
  expect(await states()).toEqual(["running", "running", "running"]);
  await Promise.all(others.map(({ client, job }) => client.call("DELETE", `/jobs/${job.id}`)));
});
