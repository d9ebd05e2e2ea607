import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let bookId: string;

const markdown = `# Tides

Look [here](https://tides.hesterley.example/today%22) first, or [ there ](https://tides.hesterley.example/notes).

# Ways

The [office](https://tides.hesterley.example/today%22) and [the plan](www.tides.example/plan).
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
const findings = async (rule?: string) =>
  (await call("GET", "/findings")).body.filter((one: any) => rule === undefined || one.rule === rule);

test("are told with their chapter, their sentence and what a press would change", async () => {
  const tails = await findings("address-tail");
  expect(tails).toMatchObject([
    {
      severity: "fix",
      chapter: "Tides",
      text: "here",
      before: "Look ",
      mend: {
        before: "https://tides.hesterley.example/today%22",
        after: "https://tides.hesterley.example/today",
      },
      accepted: null,
    },
    { chapter: "Ways", text: "office" },
  ]);
  expect((await findings("says-nothing")).map((one: any) => one.text)).toEqual(["here"]);
  const stranger = await server.client().signUp();
  expect((await stranger.call("GET", `/books/${bookId}/findings`)).status).toBe(404);
});

test("all of one rule are mended as one step, or one alone; undo brings them back", async () => {
  const step = (await call("POST", "/findings/mend", { rule: "address-tail" })).body;
  expect(step).toMatchObject({
    kind: "mend",
    summary: "Mended 2 links: something clings to the end of an address.",
    chapters: [{ links: 1 }, { links: 1 }],
  });
  expect(await findings("address-tail")).toEqual([]);
  const rows = (await call("GET", "/links")).body.rows;
  expect(rows[0]).toMatchObject({ text: "here", destination: "https://tides.hesterley.example/today" });
  await call("POST", `/steps/${step.id}/undo`, {});
  const [first] = await findings("address-tail");
  const links = [{ chapterId: first.chapterId, linkId: first.subject }];
  await call("POST", "/findings/mend", { rule: "address-tail", links });
  expect((await findings("address-tail")).map((one: any) => one.chapter)).toEqual(["Ways"]);
  await call("POST", "/findings/mend", { rule: "address-without-scheme" });
  expect((await call("GET", "/links")).body.rows.at(-1)).toMatchObject({
    kind: "web",
    destination: "https://www.tides.example/plan",
  });
});

test("what may be right as it is is mended one by one, and never with all others", async () => {
  const { id } = (
    await client.bringIn(
      "# A\n\n[One](https://tides.example/Inc.), [two](https://tides.example/b%22), [three](https://t.example/Yahoo!).\n",
    )
  ).body.book;
  const ask = async (path: string, body?: unknown) =>
    client.call<any>(body ? "POST" : "GET", `/books/${id}${path}`, body);
  const tails = async () => (await ask("/findings")).body.filter((one: any) => one.rule === "address-tail");
  expect((await tails()).map((one: any) => [one.text, one.isSure])).toEqual([
    ["One", false],
    ["two", true],
    ["three", false],
  ]);
  expect((await ask("/findings/mend", { rule: "address-tail" })).body.summary).toContain("Mended 1 link");
  const [one] = await tails();
  expect((await ask("/findings/mend", { rule: "address-tail" })).body.code).toBe("nothing-changes");
  const links = [{ chapterId: one.chapterId, linkId: one.subject }];
  expect((await ask("/findings/mend", { rule: "address-tail", links })).body.summary).toContain(
    "Mended 1 link",
  );
  expect((await tails()).map((left: any) => left.text)).toEqual(["three"]);
});

test("an acceptance ends when its link is changed, and not when another is", async () => {
  const [first, second] = await findings("address-tail");
  const accepted = async () =>
    (await findings("address-tail")).map((one: any) => [one.chapter, one.accepted !== null]);
  await call("PUT", "/acceptances", { subject: first.subject, rule: "address-tail", reason: "Wanted." });
  const describe = (one: any, description: string) =>
    call("POST", "/links/edits", {
      links: [{ chapterId: one.chapterId, linkId: one.subject }],
      edit: { kind: "describe", description },
    });
  await describe(second, "The office's notes");
  expect(await accepted()).toEqual([
    ["Tides", true],
    ["Ways", false],
  ]);
  await describe(first, "Today's tables");
  expect(await accepted()).toEqual([
    ["Tides", false],
    ["Ways", false],
  ]);
});

test("what was accepted says why, and is not mended; what no press can mend is told", async () => {
  const [first] = await findings("address-tail");
  const reason = "The server wants the full stop.";
  await call("PUT", "/acceptances", { subject: first.subject, rule: "address-tail", reason });
  expect((await findings("address-tail"))[0]).toMatchObject({ accepted: reason });
  await call("POST", "/findings/mend", { rule: "address-tail" });
  expect((await findings("address-tail")).map((one: any) => one.chapter)).toEqual(["Tides"]);
  const again = await call("POST", "/findings/mend", { rule: "address-tail" });
  expect([again.status, again.body.code]).toEqual([422, "nothing-changes"]);
  expect((await call("POST", "/findings/mend", { rule: "says-nothing" })).body.code).toBe("no-mend");
});

test("the size of an area is judged by the picture that it lies on", async () => {
  const png = Buffer.from(
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
    "base64",
  );
  const form = new FormData();
  form.set("picture", new Blob([png]), "dot.png");
  const { id: file } = (await call("POST", "/pictures", form)).body;
  const hotspot = (id: string, to: number) => ({
    id,
    shape: "rectangle",
    points: [
      [0, 0],
      [to, to],
    ],
    destination: { kind: "web", address: `https://tides.hesterley.example/${id}` },
    alt: `The ${id}`,
    description: null,
    frame: { line: "none", thickness: 2, colour: "#1d4f8f" },
  });
  const attrs = { file, alt: "A map", decorative: false, source: null, width: 100 };
  const picture = (hotspots: unknown[]) => ({
    type: "paragraph",
    content: [{ type: "picture", attrs: { ...attrs, hotspots } }],
  });
  const document = {
    type: "doc",
    content: [
      { type: "title", attrs: { id: "t" }, content: [{ type: "text", text: "Maps" }] },
      picture([hotspot("small", 0.05)]),
      picture([hotspot("large", 0.5)]),
    ],
  };
  expect((await call("POST", "/chapters", { title: "Maps", document })).status).toBe(201);
  expect((await findings("hotspot-small")).map((one: any) => one.subject)).toEqual(["small"]);
});
