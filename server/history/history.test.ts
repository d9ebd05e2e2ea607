import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let path: string;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  client = await server.client().signUp();
  const bookId = (
    await client.bringIn("# Walks\n\nThe [ferry](https://ferry.hesterley.example/) leaves at one.")
  ).body.book.id;
  const chapters = await client.call<any>("GET", `/books/${bookId}/chapters`);
  path = `/books/${bookId}/chapters/${chapters.body[0].id}`;
});

const chapter = async () => (await client.call<any>("GET", path)).body;
const versions = async () => (await client.call<any>("GET", `${path}/versions`)).body;
async function rewrite(from: string, to: string): Promise<void> {
  const { document, revision } = await chapter();
  const text = JSON.stringify(document).replace(from, to);
  expect((await client.call("PUT", path, { revision, document: JSON.parse(text) })).status).toBe(200);
}

test("the first text is kept when it is written over, and then one version in a while is enough", async () => {
  await rewrite("at one", "at two");
  await rewrite("at two", "at three");
  await rewrite("at three", "at four");
  const listed = await versions();
  expect(listed.map(({ id, revision, name }: any) => [id === null, revision, name])).toEqual([
    [true, 4, null],
    [false, 1, null],
  ]);
  expect(listed[1]).toMatchObject({ title: "Walks", words: 6, links: 1 });
});

test("a named version is kept at once, and brought back without losing what it replaces", async () => {
  await rewrite("at one", "at two");
  const named = await client.call<any>("POST", `${path}/versions`, { name: "Sent to the wardens" });
  expect(named.body).toMatchObject({ name: "Sent to the wardens", revision: 2 });
  await rewrite("at two", "at three");
  const restored = await client.call<any>("POST", `${path}/versions/${named.body.id}/restore`);
  expect(restored.body).toEqual({ revision: 4 });
  expect(JSON.stringify((await chapter()).document)).toContain("at two");
  const kept = (await versions()).find(({ revision }: any) => revision === 3);
  const { document } = (await client.call<any>("GET", `${path}/versions/${kept.id}`)).body;
  expect(JSON.stringify(document)).toContain("at three");
});

test("a text that nobody goes on with is set aside as a version", async () => {
  const { document } = await chapter();
  const mine = JSON.parse(JSON.stringify(document).replace("at one", "at seven"));
  const aside = await client.call<any>("POST", `${path}/versions`, { name: "Set aside", document: mine });
  expect(aside.status).toBe(201);
  const read = await client.call<any>("GET", `${path}/versions/${aside.body.id}`);
  expect(JSON.stringify(read.body.document)).toContain("at seven");
  expect((await chapter()).revision).toBe(1);
  const bad = { type: "doc", content: [] };
  expect((await client.call("POST", `${path}/versions`, { name: "x", document: bad })).status).toBe(422);
});

test("another author's versions do not exist", async () => {
  await rewrite("at one", "at two");
  const { id } = (await versions())[1];
  const stranger = await server.client().signUp();
  expect((await stranger.call("GET", `${path}/versions/${id}`)).status).toBe(404);
  expect((await stranger.call("POST", `${path}/versions/${id}/restore`)).status).toBe(404);
});

test("undo of a removal in a text that was changed since says what it could not put back", async () => {
  const bookPath = path.split("/chapters/")[0]!;
  await client.call("POST", `${bookPath}/chapters`, { title: "Another" });
  const { rows } = (await client.call<any>("GET", `${bookPath}/links`)).body;
  const links = rows.map(({ chapterId, linkId }: any) => ({ chapterId, linkId }));
  const step = await client.call<any>("POST", `${bookPath}/links/edits`, { links, edit: { kind: "remove" } });
  await rewrite("at one", "at two");
  const undone = (await client.call<any>("POST", `${bookPath}/steps/${step.body.id}/undo`)).body;
  // Where a removed link stood nobody can say once the text was changed.
  expect(undone).toMatchObject({ undone: 0, left: 1 });
  const listed = (await client.call<any>("GET", `${bookPath}/steps`)).body;
  expect(listed).toMatchObject([{ kind: "remove", undoneAt: expect.any(String), chapters: [{ links: 1 }] }]);
});
