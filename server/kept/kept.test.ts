import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => void (server = await startTestServer()));
afterAll(() => server.close());
beforeEach(async () => void (author = await server.client().signUp()));

const page = "https://tides.hesterley.example/glossary";
const plan = "https://types.example/plan.pdf";
const shut = "https://patient.example/private";
const gone = "https://tides.hesterley.example/tables/2019";

async function bookWith(...addresses: string[]): Promise<string> {
  const { body } = await author.bringIn(
    `# T\n\n${addresses.map((one, i) => `[w${i}](<${one}>)`).join(" ")}\n`,
  );
  return body.book.id as string;
}
const files = async (bookId: string) =>
  (await author.call<{ id: string; name: string; mediaType: string }[]>("GET", `/books/${bookId}/files`))
    .body;
async function keep(bookId: string, addresses?: string[]): Promise<any> {
  const { body } = await author.call<{ id: string }>(
    "POST",
    `/books/${bookId}/kept-copies`,
    addresses ? { addresses } : {},
  );
  return author.jobEnd(body);
}

test("copies of pages become companion files, on their author's word alone, where their hosts allow it", async () => {
  const bookId = await bookWith(`${page}#neap`, page, plan, shut, gone);
  expect(await files(bookId)).toEqual([]);
  const end = await keep(bookId);
  expect(end).toMatchObject({ state: "done", total: 4 });
  expect(end.message).toMatch(/^2 copies kept\. Not kept: /);
  expect(end.message).toContain(`${shut}: its host asks programs to leave it alone`);
  expect(end.message).toContain(`${gone}: it answers 404`);
  const kept = await files(bookId);
  expect(kept.map(({ name, mediaType }) => [name, mediaType])).toEqual([
    ["tides.hesterley.example glossary (kept copy).html", "text/html"],
    ["types.example plan (kept copy).pdf", "application/pdf"],
  ]);
  const { body } = await author.call<any[]>("GET", `/books/${bookId}/destinations`);
  // Parts of one page share its copy.
  expect(body.map(({ keptCopy }) => keptCopy)).toEqual([kept[0]!.id, kept[0]!.id, kept[1]!.id, null, null]);
  // Kept anew it stays the same file; all that have one are left as they are.
  expect((await keep(bookId, [page])).message).toBe("1 copy kept.");
  expect((await files(bookId)).map(({ id }) => id)).toEqual(kept.map(({ id }) => id));
  const stranger = await server.client().signUp();
  expect((await stranger.call("POST", `/books/${bookId}/kept-copies`, {})).status).toBe(404);
  expect(
    (await author.call("POST", `/books/${bookId}/kept-copies`, { addresses: ["https://x.example/"] })).status,
  ).toBe(422);
});

test("a link whose page is gone is led to the copy by one press, which can be undone", async () => {
  const turning = "https://turning.example/kept-then-gone";
  const bookId = await bookWith(turning);
  await keep(bookId, [turning]);
  const job = await author.call<{ id: string }>("POST", `/books/${bookId}/reach`);
  await author.jobEnd(job.body);
  const again = await author.call<{ id: string }>("POST", `/books/${bookId}/reach`);
  await author.jobEnd(again.body);
  const broken = async () =>
    ((await author.call<any[]>("GET", `/books/${bookId}/findings`)).body as any[]).find(
      ({ rule }) => rule === "destination-broken",
    );
  const finding = await broken();
  expect(finding).toMatchObject({
    isSure: false,
    mend: { before: turning, after: "turning.example kept-then-gone (kept copy).html" },
  });
  const links = [{ chapterId: finding.chapterId, linkId: finding.subject }];
  const step = await author.call<{ id: string }>("POST", `/books/${bookId}/findings/mend`, {
    rule: "destination-broken",
    links,
  });
  expect(step.status).toBe(200);
  const [copy] = await files(bookId);
  const destination = async () =>
    (await author.call<any>("GET", `/books/${bookId}/links`)).body.rows[0].destination;
  expect(await destination()).toBe(`companion:${copy!.id}`);
  await author.call("POST", `/books/${bookId}/steps/${step.body.id}/undo`, {});
  expect(await destination()).toBe(turning);
  // Whoever deletes the file has no copy any more.
  await author.call("DELETE", `/books/${bookId}/files/${copy!.id}`);
  expect((await broken()).mend).toBeNull();
});
