import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const birds = "---\ntitle: Birds of the sound\n---\n\n# Waders\n\nMany.\n\n# Knots 50%_\n\nSome.";

/** A Shelf with a book of walks, and one of birds. */
async function shelf() {
  client = await server.client().signUp();
  const walks: string = (await client.bringIn("# Walks\n\nSee the waders.")).body.book.id;
  const other: string = (await client.bringIn(birds)).body.book.id;
  const find = async (words: string) =>
    (await client.call<any>("GET", `/books/${walks}/shelf/places?words=${encodeURIComponent(words)}`)).body;
  const lead = (placeId: string | null, bookId = other) =>
    client.call<any>("POST", `/books/${walks}/shelf/places`, { bookId, placeId });
  const from = async () => (await client.call<any>("GET", `/books/${walks}/shelf/files`)).body;
  return { walks, other, find, lead, from };
}

async function exported(bookId: string, format: string): Promise<void> {
  const job = await client.call<any>("POST", `/books/${bookId}/exports`, { format });
  expect(await client.jobEnd(job.body)).toMatchObject({ state: "done" });
}

/** Puts a link on words of a book, and proves what then goes out. */
async function proofOfLink(bookId: string, phrase: string, destination: object) {
  const search = (await client.call<any>("POST", `/books/${bookId}/links/search`, { phrase })).body;
  const [{ chapterId, revision, mentions }] = search.chapters;
  const { from, to } = mentions[0];
  const links = [{ chapterId, revision, from, to, destination }];
  expect((await client.call<any>("POST", `/books/${bookId}/links`, { kind: "codes", links })).status).toBe(
    201,
  );
  await exported(bookId, "pdf");
  const [made] = (await client.call<any>("GET", `/books/${bookId}/exports`)).body;
  return (await client.call<any>("GET", `/books/${bookId}/exports/${made.id}`)).body;
}

test.each([
  ["pdf", /^nameddest=/],
  ["epub", /^epubcfi\(/],
])(
  "a link leads to a place in another book of the Shelf by its %s, which travels along",
  async (format, way) => {
    const { walks, other, find, lead, from } = await shelf();
    const [place] = await find("wader");
    expect(place).toMatchObject({
      bookId: other,
      title: "Birds of the sound",
      name: "Waders",
      kind: "title",
    });
    // Nothing of it has gone out yet.
    expect(await lead(place.placeId)).toMatchObject({ status: 422, body: { code: "never-exported" } });
    await exported(other, format);
    const led = (await lead(place.placeId)).body;
    expect(led).toMatchObject({
      file: { name: `birds-of-the-sound.${format}` },
      at: expect.stringMatching(way),
    });
    expect(await from()).toEqual([
      { fileId: led.file.id, bookId: other, title: "Birds of the sound", isOlder: false },
    ]);
    const proof = await proofOfLink(walks, "the waders", { kind: "file", file: led.file.id, at: led.at });
    expect(proof).toMatchObject({ complete: true, intact: 1 });
    expect(proof.rows[0].expected).toBe(`files/birds-of-the-sound.${format}#${decodeURIComponent(led.at)}`);
    const [row] = (await client.call<any>("GET", `/books/${walks}/links`)).body.rows;
    expect(row.destinationName).toBe(`birds-of-the-sound.${format}, “Waders”`);
    // The same file serves further links.
    expect((await lead(null)).body).toEqual({ file: led.file, at: null });
  },
);

test("what has changed there since is told, and the newest file is taken on one press, or for a new place", async () => {
  const { walks, other, find, lead, from } = await shelf();
  await exported(other, "pdf");
  const [knots] = await find("50%_");
  const led = (await lead(knots.placeId)).body;
  const made = await client.call<any>("POST", `/books/${other}/chapters`, { title: "Gulls" });
  expect(made.status).toBe(201);
  const [gulls] = await find("gulls");
  expect(await lead(gulls.placeId)).toMatchObject({
    status: 422,
    body: { code: "place-not-in-file", message: expect.stringContaining("without “Gulls”") },
  });
  await exported(other, "pdf");
  expect((await from())[0].isOlder).toBe(true);
  expect((await client.call("POST", `/books/${walks}/shelf/files/${led.file.id}`)).status).toBe(200);
  expect((await from())[0].isOlder).toBe(false);
  expect((await lead(gulls.placeId)).body).toMatchObject({ file: { id: led.file.id } });
  // A book whose files go out beside it is taken along by itself.
  const data = new FormData();
  data.set("file", new Blob(["a,b"]), "table.csv");
  const file = (await client.call<any>("POST", `/books/${other}/files`, data)).body.stored[0].file.id;
  expect(await proofOfLink(other, "Many", { kind: "file", file })).toMatchObject({ complete: true });
  await client.call("PATCH", `/books/${other}/chapters/${made.body.id}`, { title: "Terns" });
  await client.call("POST", `/books/${other}/chapters`, { title: "Skuas" });
  await exported(other, "pdf");
  const [skuas] = await find("skuas");
  const renewed = (await lead(skuas.placeId)).body;
  expect(renewed).toMatchObject({ file: { id: led.file.id, name: "birds-of-the-sound.pdf" } });
  expect((await from())[0].isOlder).toBe(false);
});

test("nobody leads into a book that is not on the same Shelf", async () => {
  const { walks, other, lead } = await shelf();
  const owner = client;
  await exported(other, "pdf");
  const mine = await shelf();
  expect(await mine.find("waders")).toHaveLength(1);
  expect((await mine.lead(null, other)).status).toBe(404);
  expect((await mine.lead(null, mine.walks)).status).toBe(404);
  client = owner;
  expect((await lead("nowhere")).status).toBe(404);
  expect((await client.call("POST", `/books/${walks}/shelf/files/${crypto.randomUUID()}`)).status).toBe(404);
});

test("a finished PDF is led into by its outline, as it came or as it was saved", async () => {
  const { other, find, lead } = await shelf();
  await exported(other, "pdf");
  const [made] = (await client.call<any>("GET", `/books/${other}/exports`)).body;
  const bytes = await (await client.stream(`/books/${other}/exports/${made.id}/file`)).arrayBuffer();
  const form = new FormData();
  form.set("file", new Blob([bytes]), "old birds.pdf");
  const begun = (await client.call<any>("POST", "/books/finished", form)).body;
  const { bookId } = (await client.jobEnd(begun)) as unknown as { bookId: string };
  const places = (await find("waders")).filter((one: any) => one.bookId === bookId);
  expect(places.length).toBeGreaterThan(0);
  const led = (await lead(places[0].placeId, bookId)).body;
  expect(led).toMatchObject({
    file: { name: "old birds.pdf" },
    at: expect.stringMatching(/^(page|nameddest)=/),
  });
  // A finished PDF leads into others likewise, by a file beside it.
  const from = await client.call<any>("POST", `/books/${bookId}/shelf/places`, {
    bookId: other,
    placeId: null,
  });
  expect(from).toMatchObject({ status: 200, body: { file: { name: "birds-of-the-sound.pdf" }, at: null } });
});
