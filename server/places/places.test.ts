import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { bookOfPlaces } from "@vennet/core/test/book-of-places";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let bookId: string;

const markdown = `# Tides

<a id="low"></a>Low water is at nine. See [the crossing](#crossing).

## Springs

<a id="high"></a>High water follows.

# Crossing

When [it is low](#low), and [still low](#low), go. See [springs](#springs).
`;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  client = await server.client().signUp();
  bookId = (await client.bringIn(markdown)).body.book.id;
});
const call = async (method: string, path: string, body?: unknown) =>
  client.call<any>(method, `/books/${bookId}${path}`, body);
const places = async () => (await call("GET", "/places")).body;
const place = async (text: string) => (await places()).find((one: any) => one.text === text);

test("are listed in reading order with how many links lead to each", async () => {
  expect((await places()).map(({ kind, level, text, uses }: any) => [kind, level, text, uses])).toEqual([
    ["title", 0, "Tides", 0],
    ["anchor", null, "low", 2],
    ["heading", 1, "Springs", 1],
    ["anchor", null, "high", 0],
    ["title", 0, "Crossing", 1],
  ]);
});

test("an anchor takes any name; its id and its links stay", async () => {
  const { id } = await place("low");
  expect((await call("PATCH", `/places/${id}`, { name: "Niedrig – 干潮, low water" })).status).toBe(204);
  expect(await place("Niedrig – 干潮, low water")).toMatchObject({ id, uses: 2 });
  const heading = await place("Springs");
  expect((await call("PATCH", `/places/${heading.id}`, { name: "x" })).body.code).toBe("no-anchor");
  expect((await call("PATCH", "/places/none", { name: "x" })).status).toBe(404);
});

test("an anchor is put before words that were found in a chapter, in the revision in which they were", async () => {
  const find = async () =>
    (await call("POST", "/links/search", { phrase: "water", wholeWords: false, limit: 2 })).body.chapters;
  const [{ chapterId, revision, mentions }, ...others] = await find();
  expect([mentions.length, others.length]).toEqual([2, 0]);
  const [low, high] = mentions;
  expect(low).toMatchObject({
    text: "water",
    before: " Low ",
    after: " is at nine. See the crossing.",
    place: null,
  });
  const { status, body } = await call("POST", "/places", { chapterId, revision, from: low.from, to: low.to });
  expect(status).toBe(201);
  expect(await place("water")).toMatchObject({ id: body.id, kind: "anchor", uses: 0 });
  expect((await find())[0].mentions[0].place).toBe(body.id);
  const late = { chapterId, revision, from: high.from, to: high.to };
  expect((await call("POST", "/places", late)).body.code).toBe("old-revision");
  const outside = { ...late, revision: revision + 1, to: 90_000 };
  expect((await call("POST", "/places", outside)).status).toBe(422);
});

test("a used anchor is taken out only with word about its links; two are merged; undo brings all back", async () => {
  const [low, high] = [await place("low"), await place("high")];
  expect((await call("POST", `/places/${low.id}/remove`, {})).body).toMatchObject({ code: "place-used" });
  expect((await call("POST", `/places/${low.id}/remove`, { to: "none" })).body.code).toBe("no-place");
  expect((await call("POST", `/places/${low.id}/remove`, { to: low.id })).body.code).toBe("no-place");
  const step = (await call("POST", `/places/${low.id}/remove`, { to: high.id })).body;
  expect(step).toMatchObject({ kind: "anchor", chapters: [{ links: 0 }, { links: 2 }] });
  expect(await place("low")).toBeUndefined();
  expect(await place("high")).toMatchObject({ uses: 2 });
  await call("POST", `/steps/${step.id}/undo`, {});
  expect(await place("low")).toMatchObject({ id: low.id, uses: 2 });
  expect(await place("high")).toMatchObject({ uses: 0 });
});

test("an unused anchor goes at once; links may be left dangling on purpose", async () => {
  const high = await place("high");
  expect((await call("POST", `/places/${high.id}/remove`, {})).status).toBe(200);
  const low = await place("low");
  const { summary } = (await call("POST", `/places/${low.id}/remove`, { to: "nowhere" })).body;
  expect(summary).toBe("Took an anchor out. 2 links lead nowhere now.");
  const { rows } = (await call("GET", "/links?kind=place")).body;
  expect(rows.filter((row: any) => row.destination === `#${low.id}`)).toHaveLength(2);
});

test("a merged anchor's cross-references and lists follow; what else counts as a place is listed too", async () => {
  bookId = await client.write(bookOfPlaces().chapters.map(({ doc }) => writeChapter(doc)));
  const kinds = (await places()).map(({ kind, id, uses }: any) => `${kind} ${id} ${uses}`);
  expect(kinds).toEqual(
    expect.arrayContaining(["table bare 1", "signposts contents 0", "note clock 0", "anchor post 2"]),
  );
  const step = (await call("POST", "/places/post/remove", { to: "way" })).body;
  expect(step.summary).toBe("Took an anchor out. 2 links lead elsewhere now.");
  expect(await place("What is where")).toMatchObject({ list: { of: "contents", depth: 2 } });
  expect(await place("Posts")).toMatchObject({ list: { anchors: ["way"] } });
  expect(await place("The way")).toMatchObject({ uses: 3 });
});

test("a cross-reference can be sent to another place, but has no words to keep and takes no address", async () => {
  bookId = await client.write(bookOfPlaces().chapters.map(({ doc }) => writeChapter(doc)));
  const rows = (await call("GET", "/links?kind=place")).body.rows;
  const wanted = rows.find((row: any) => row.linkId === "s1");
  expect(wanted).toMatchObject({
    coverage: "reference",
    text: "(its page)",
    destinationName: "What about sand?",
  });
  const links = [{ chapterId: wanted.chapterId, linkId: "s1" }];
  const edit = (one: object) => call("POST", "/links/edits", { links, edit: one });
  const web = { kind: "web", address: "https://a.example/" };
  expect((await edit({ kind: "remove" })).body.code).toBe("nothing-changes");
  expect((await edit({ kind: "retarget", destination: web })).body.code).toBe("nothing-changes");
  expect(
    (await edit({ kind: "retarget", destination: { kind: "place", target: "sea" } })).status,
  ).toBeLessThan(300);
  const after = (await call("GET", "/links?kind=place")).body.rows;
  expect(after.find((row: any) => row.linkId === "s1").destination).toBe("#sea");
});

test("a finding is accepted with a reason, and that can be taken back", async () => {
  const list = async () =>
    (await call("GET", "/acceptances")).body.map(({ subject, rule, reason }: any) => ({
      subject,
      rule,
      reason,
    }));
  const one = { subject: "link1", rule: "looks-like-text", reason: "It is told in the margin." };
  expect((await call("PUT", "/acceptances", one)).status).toBe(204);
  expect((await call("PUT", "/acceptances", { ...one, reason: "Told beside it." })).status).toBe(204);
  expect(await list()).toEqual([{ ...one, reason: "Told beside it." }]);
  expect((await call("PUT", "/acceptances", { ...one, reason: "" })).body.message).toContain(
    "why it may stay",
  );
  expect((await call("PUT", "/acceptances", { ...one, rule: "no-such-rule" })).status).toBe(400);
  const stranger = await server.client().signUp();
  expect((await stranger.call("GET", `/books/${bookId}/acceptances`)).status).toBe(404);
  expect((await call("DELETE", "/acceptances/link1/looks-like-text")).status).toBe(204);
  expect(await list()).toEqual([]);
});
