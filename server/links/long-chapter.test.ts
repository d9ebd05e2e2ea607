import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

// More letters than are worked at in the server itself: all of this goes through processes.
const count = 1_500;
let server: TestServer;
let client: Client;
let book: string;

beforeAll(async () => {
  server = await startTestServer();
  client = await server.client().signUp();
  const line = "[low water](https://tides.hesterley.example/today) at nine.\n\n";
  book = `/books/${(await client.bringIn(`# Crossing\n\n${line.repeat(count)}`)).body.book.id}`;
});
afterAll(() => server.close());

const call = async (method: string, path: string, body?: unknown) =>
  (await client.call<any>(method, `${book}${path}`, body)).body;

/** The links of the chapter's text itself, and those of the ledger. */
async function described(): Promise<{ text: number; ledger: number }> {
  const [{ id }] = await call("GET", "/chapters");
  const text = JSON.stringify((await call("GET", `/chapters/${id}`)).document);
  const { total } = await call("GET", "/links?described=yes&limit=1");
  return { text: text.split('"description":"By day"').length - 1, ledger: total };
}

test("a long chapter is saved, renamed, searched, edited and given back as a short one is", async () => {
  const [chapter] = await call("GET", "/chapters");
  expect(chapter.links).toBe(count);
  const { document, revision } = await call("GET", `/chapters/${chapter.id}`);
  expect(JSON.stringify(document).length).toBeGreaterThan(200_000);
  expect((await call("PUT", `/chapters/${chapter.id}`, { revision, document })).revision).toBe(revision + 1);
  expect((await call("PATCH", `/chapters/${chapter.id}`, { title: "Crossings" })).title).toBe("Crossings");
  const [found] = (await call("POST", "/links/search", { phrase: "nine" })).chapters;
  expect(found.mentions).toHaveLength(count);

  const edit = { matching: {}, edit: { kind: "describe", description: "By day" } };
  expect(await call("POST", "/links/edits/preview", edit)).toMatchObject({ changing: count, unchanged: 0 });
  const step = await call("POST", "/links/edits", edit);
  expect(step.chapters).toEqual([{ chapterId: chapter.id, links: count }]);
  expect(await described()).toEqual({ text: count, ledger: count });

  // Changed since, so each link gets back what the step took from it.
  await call("PATCH", `/chapters/${chapter.id}`, { title: "Crossing" });
  expect(await call("POST", `/steps/${step.id}/undo`)).toMatchObject({ undone: count, left: 0 });
  expect(await described()).toEqual({ text: 0, ledger: 0 });
  expect((await call("GET", "/steps"))[0]).toMatchObject({
    id: step.id,
    undoneAt: expect.any(String),
    chapters: [{ chapterId: chapter.id, links: count }],
  });

  const mentions = found.mentions.slice(0, 1_000);
  const { revision: now } = await call("GET", `/chapters/${chapter.id}`);
  const links = mentions.map(({ from, to }: { from: number; to: number }) => ({
    chapterId: chapter.id,
    revision: now,
    from,
    to,
    destination: { kind: "web", address: "https://clock.example/" },
  }));
  await call("POST", "/links", { kind: "mentions", links });
  expect((await call("GET", "/links?limit=1")).total).toBe(count + 1_000);
});

test("what is no chapter is refused in the same words, however long it is", async () => {
  const [{ id, revision }] = await call("GET", "/chapters");
  const wrong = (words: string) => ({
    type: "doc",
    content: [{ type: "paragraph", content: [{ type: "text", text: words }] }],
  });
  const answers = await Promise.all(
    ["short", "long ".repeat(60_000)].map((words) =>
      client.call<any>("PUT", `${book}/chapters/${id}`, { revision, document: wrong(words) }),
    ),
  );
  expect(answers.map(({ status }) => status)).toEqual([422, 422]);
  expect(answers.map(({ body }) => body.code)).toEqual(["document", "document"]);
});
