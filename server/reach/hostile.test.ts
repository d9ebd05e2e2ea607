import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let other: Client;

beforeAll(async () => {
  server = await startTestServer({
    REACH_TIMEOUT_MS: "1000",
    REACH_TOTAL_MS: "2500",
    REACH_CONCURRENCY: "16",
  });
  [author, other] = await Promise.all([server.client().signUp(), server.client().signUp()]);
});
afterAll(() => server.close());

async function bookWith(client: Client, addresses: readonly string[]): Promise<string> {
  const text = addresses.map((address, i) => `- [link ${i}](${address})`).join("\n");
  return (await client.bringIn(`# Walks\n\n${text}\n`)).body.book.id;
}

async function states(
  client: Client,
  bookId: string,
): Promise<Record<string, { state: string; title: string }>> {
  const { body } = await client.call<any[]>("GET", `/books/${bookId}/destinations`);
  return Object.fromEntries(body.map(({ address, state, title }) => [address, { state, title }]));
}

test("each hostile way costs one question its time, and what came of the page before is told", async () => {
  const ways = ["drip", "drip-missing", "drip-file", "early", "slow-redirects", "deep", "deep-lists"];
  const addresses = [...ways, "attributes", "one-word", "comments"].map(
    (way, i) => `http://${i}.hostile.test/${way}`,
  );
  const bookId = await bookWith(author, addresses);
  const { body: job } = await author.call<{ id: string }>("POST", `/books/${bookId}/reach`);
  expect(await author.jobEnd(job)).toMatchObject({ state: "done", done: addresses.length });
  const seen = await states(author, bookId);
  const at = (way: string) => seen[addresses.find((address) => address.endsWith(`/${way}`))!]!;
  expect(at("drip").state).toBe("sound");
  expect(at("drip-missing").state).toBe("broken");
  expect(at("drip-file").state).toBe("sound");
  expect(at("early").state).toBe("unsure");
  expect(at("slow-redirects").state).toBe("unsure");
  for (const way of ["deep", "deep-lists", "attributes", "one-word", "comments"])
    expect([way, at(way).state]).toEqual([way, "sound"]);
  expect(at("attributes").title).toBe("Many");
});

test("a book is asked while forty dripping hosts of another hold all lanes", async () => {
  const hosts = Array.from({ length: 40 }, (_, i) => `http://h${i}.hostile.test`);
  const hostile = await bookWith(
    author,
    hosts.flatMap((host) => ["early", "slow-redirects", "drip"].map((way) => `${host}/${way}`)),
  );
  const mine = await bookWith(
    other,
    Array.from({ length: 5 }, (_, i) => `https://stone-${i + 1}.hesterley.test/`),
  );
  const { body: long } = await author.call<{ id: string }>("POST", `/books/${hostile}/reach`);
  const { body: short } = await other.call<{ id: string }>("POST", `/books/${mine}/reach`);
  expect(await other.jobEnd(short)).toMatchObject({ state: "done", done: 5 });
  expect((await author.call("GET", `/jobs/${long.id}`)).body["state"]).toBe("running");
  await author.call("DELETE", `/jobs/${long.id}`);
});

test("a page that does not come in the time that an author waits has no title", async () => {
  const bookId = await bookWith(author, ["https://tides.hesterley.example/"]);
  const address = encodeURIComponent("http://1.hostile.test/slow-redirects");
  const { status, body } = await author.call("GET", `/books/${bookId}/page-title?address=${address}`);
  expect([status, body]).toEqual([200, { title: null }]);
});
