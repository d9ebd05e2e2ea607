import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

test("a place that is gone keeps its name for the links that lead to it, until it is back", async () => {
  const { id: bookId } = (
    await author.bringIn(
      "# Tides\n\nSee [it](#low-water) and [them](#ways).\n\n## Low water\n\nWade.\n\n# Ways\n\nBy foot.",
    )
  ).body.book;
  const gone = async (): Promise<string[]> =>
    (await author.call<any[]>("GET", `/books/${bookId}/places/gone`)).body.map(({ name }) => name as string);
  const named = async (): Promise<string[]> =>
    (await author.call<any>("GET", `/books/${bookId}/links`)).body.rows.map(
      (row: any) => row.destinationName,
    );
  const [tides, ways] = (await author.call<any[]>("GET", `/books/${bookId}/chapters`)).body;
  const path = `/books/${bookId}/chapters/${tides.id}`;
  const { document, revision } = (await author.call<any>("GET", path)).body;
  expect([await gone(), await named()]).toEqual([[], ["Low water", "Ways"]]);

  const without = { ...document, content: document.content.filter(({ type }: any) => type !== "heading") };
  await author.call("PUT", path, { document: without, revision });
  expect([await gone(), await named()]).toEqual([["Low water"], ["Low water (deleted)", "Ways"]]);

  // With a whole chapter go its places.
  await author.call("DELETE", `/books/${bookId}/chapters/${ways.id}`);
  expect((await gone()).sort()).toEqual(["Low water", "Ways"]);

  await author.call("POST", `/books/${bookId}/chapters/${ways.id}/restore`);
  await author.call("PUT", path, { document, revision: revision + 1 });
  expect([await gone(), await named()]).toEqual([[], ["Low water", "Ways"]]);
});
