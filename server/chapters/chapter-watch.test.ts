import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  bookId = (await author.bringIn("# Tides\n\nLow.\n\n# Ways\n\nBy foot.")).body.book.id;
});
afterAll(() => server.close());

type Told = { id: string; title: string; revision: number }[];

/** What a window is told, one telling after the other. */
async function* tellings(client: Client): AsyncGenerator<Told> {
  const response = await client.stream(`/books/${bookId}/chapters/events`);
  const decoder = new TextDecoder();
  let text = "";
  for await (const piece of response.body as unknown as AsyncIterable<Uint8Array>) {
    text += decoder.decode(piece, { stream: true });
    for (let end = text.indexOf("\n\n"); end !== -1; end = text.indexOf("\n\n")) {
      const data = /^data: (.*)$/m.exec(text.slice(0, end))?.[1];
      text = text.slice(end + 2);
      if (data) yield JSON.parse(data) as Told;
    }
  }
}

test("a window hears of every chapter that another one saves, renames or deletes", async () => {
  const heard = tellings(author);
  const next = async (): Promise<Told> => (await heard.next()).value as Told;
  const [first, second] = (await next()) as [Told[number], Told[number]];
  expect([first, second]).toMatchObject([
    { title: "Tides", revision: 1 },
    { title: "Ways", revision: 1 },
  ]);
  const path = `/books/${bookId}/chapters/${first.id}`;
  const { document } = (await author.call<any>("GET", path)).body;
  await author.call("PUT", path, { document, revision: 1 });
  expect(await next()).toEqual([{ ...first, revision: 2 }, second]);
  await author.call("PATCH", path, { title: "Low tides" });
  expect(await next()).toEqual([{ ...first, title: "Low tides", revision: 3 }, second]);
  await author.call("DELETE", path);
  expect(await next()).toEqual([second]);
  await heard.return(undefined);
});

test("a server ends with windows open, which ask again over the connections that they have", async () => {
  const ending = await startTestServer();
  const client = await ending.client().signUp();
  const { id } = (await client.bringIn("# Tides\n\nLow.")).body.book;
  const open = await client.stream(`/books/${id}/chapters/events`);
  const heard = open.text();
  const closed = ending.close();
  await heard;
  // Over the same connection, as a browser does a moment later; what it comes to is all one, if it ends.
  await client.stream(`/books/${id}/chapters/events`).then(
    (again) => again.text(),
    () => "",
  );
  await closed;
});

test("nobody hears of another's book", async () => {
  const stranger = await server.client().signUp();
  expect((await stranger.stream(`/books/${bookId}/chapters/events`)).status).toBe(404);
});
