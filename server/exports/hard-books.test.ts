import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const link = (i: number): string => `[level ${i}](https://tides.example/${i})`;
const lists = (depth: number): string =>
  Array.from({ length: depth }, (_, i) => `${"  ".repeat(i)}- ${link(i)}`).join("\n");
const mixed = Array.from(
  { length: 40 },
  (_, i) => `${"> - ".repeat(i / 2)}${i % 2 ? "> " : ""}${link(i)}`,
).join("\n>\n");

test("lists and quotes forty levels deep go out in every format with all of their links", async () => {
  const text = `# Deep\n\n${lists(40)}\n\n# Mixed\n\n${mixed}\n`;
  const { id } = (await author.bringIn(text)).body.book;
  for (const format of ["pdf", "epub", "web", "markdown", "docx", "odt"] as const) {
    const { proof } = await author.exported(id, format, format === "pdf" ? { accessible: true } : {});
    expect([format, proof.intact, proof.total]).toEqual([format, 80, 80]);
  }
});

test("a table over several pages whose head has links keeps PDF/UA-1, with each of them once", async () => {
  const rows = Array.from({ length: 120 }, (_, i) => `| Row ${i} | four hours |`).join("\n");
  const table = `| [Causeway](https://tides.example/causeways) | Bare[^n] |\n| - | - |\n${rows}`;
  const { id } = (await author.bringIn(`# Table\n\n${table}\n\n[^n]: By day.\n`)).body.book;
  const { proof } = await author.exported(id, "pdf", { accessible: true });
  expect(proof).toMatchObject({ complete: true, total: 1 });
  expect(proof.pages).toBeGreaterThan(4);
});

test("an endless word stops a PDF with its place, before it is set, and nothing else", async () => {
  const { id } = (
    await author.bringIn(`# Long\n\nThe ${"w".repeat(200_000)} ${link(1)}\n\n${"v".repeat(3_000)}\n`)
  ).body.book;
  const { body } = await author.call("POST", `/books/${id}/exports`, { format: "pdf" });
  expect(await author.jobEnd(body as { id: string })).toMatchObject({
    state: "failed",
    message: expect.stringMatching(/^Chapter “Long”: “w{30}…” is a word of 200,000 letters/),
  });
  expect((await author.exported(id, "epub")).proof).toMatchObject({ intact: 1, total: 1 });
});

test("a manuscript that lies too deep in itself is refused with its line, and leaves nothing", async () => {
  const { status, body } = await author.bringIn(`# T\n\n${">".repeat(50_000)}`);
  expect([status, body.message]).toEqual([422, expect.stringMatching(/deeper than can be read \(line 3\)/)]);
});
