import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let database: DataSource;

beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  database = server.app.get<DataSource>(getDataSourceToken());
});
afterAll(() => server.close());

const sheet = (name: string): string => `![${name}](https://maps.hesterley.example/sheets/${name})`;

/** Looks at a manuscript, and once more with its pictures fetched. */
async function lookedAt(markdown: string): Promise<{ before: any; after: any; job: any }> {
  const form = new FormData();
  form.set("manuscript", new Blob([markdown]), "sound.md");
  form.set("review", "yes");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  await author.jobEnd(begun);
  const before = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  const more = new FormData();
  more.set("fetchPictures", "yes");
  const job = (await author.call<any>("POST", `/jobs/${begun.id}/import/again`, more)).body;
  expect(await author.jobEnd(job)).toMatchObject({ state: "done" });
  return { before, after: (await author.call<any>("GET", `/jobs/${job.id}/import`)).body, job };
}

test("pictures on the web are fetched once, on the author's word, and become the book's", async () => {
  const { before, after, job } = await lookedAt(
    `# Sound\n\n${["sound.png", "old.png", "ferry.svg", "sound.png"].map(sheet).join(" ")} ![beside](sound.png)`,
  );
  expect(before.webPictures).toEqual({ count: 3, hosts: ["maps.hesterley.example"] });
  expect(after.webPictures.count).toBe(0);
  // The one beside the manuscript is called like one of the web's, and is another.
  expect(after.arrival.told).toEqual([
    expect.objectContaining({ sort: "Pictures that were not brought along", count: 1 }),
  ]);
  const kept = (await author.call<any>("POST", `/jobs/${job.id}/import/keep`, {})).body;
  await author.jobEnd(kept);
  const { book } = (await author.call<any>("GET", `/jobs/${kept.id}/import`)).body;
  expect(
    await database.query("SELECT name, role, mediaType FROM stored_file WHERE bookId = ? ORDER BY name", [
      book.id,
    ]),
  ).toEqual([
    { name: "ferry.png", role: "picture", mediaType: "image/png" },
    { name: "sound.png", role: "picture", mediaType: "image/png" },
    { name: "sound.png", role: "picture", mediaType: "image/png" },
  ]);
});

test("what cannot or may not be fetched is told, and nothing else is lost by it", async () => {
  const { after, job } = await lookedAt(
    `# Sound\n\n${["sound.png", "gone.png", "large.png", "inward.png", "none"].map(sheet).join(" ")} ![x](http://10.0.0.7/a.png)`,
  );
  const told = after.arrival.told.find(({ sort }: any) => sort === "Pictures that could not be fetched");
  expect(told.items.map(({ why }: any) => why.split(".")[0])).toEqual([
    "Its host answered 404",
    "It is larger than 10 MB",
    "Its host could not be reached, or may not be asked",
    "What is there is no picture",
    "Its host could not be reached, or may not be asked",
  ]);
  expect((await author.call("DELETE", `/jobs/${job.id}/import`)).status).toBe(204);
  expect(await database.query("SELECT id FROM stored_file WHERE role = 'upload'")).toEqual([]);
});
