import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { pdfOfLinks } from "@vennet/core/test/pdf-of-links";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const leaflet = async (...addresses: string[]): Promise<Blob> =>
  new Blob([(await pdfOfLinks(addresses)) as BlobPart], { type: "application/pdf" });

async function send(method: string, path: string, file: Blob): Promise<any> {
  const form = new FormData();
  form.set("file", file, "leaflet.pdf");
  return (await author.call<any>(method, path, form)).body;
}

test("links of a companion file that lead nowhere are told at what leads to it, once, until it is mended", async () => {
  const { body } = await author.bringIn("# T\n\nWords.\n");
  const path = `/books/${body.book.id}`;
  const gone = "https://tides.hesterley.example/tables/2019";
  const { stored } = await send(
    "POST",
    `${path}/files`,
    await leaflet("https://tides.hesterley.example/gauges", gone, "http://localhost:3000/draft", gone),
  );
  const file = stored[0].file.id as string;
  const [chapter] = (await author.call<any[]>("GET", `${path}/chapters`)).body;
  const opened = (await author.call<any>("GET", `${path}/chapters/${chapter.id}`)).body;
  const link = (id: string) => ({
    type: "text",
    text: `the leaflet ${id} (PDF)`,
    marks: [{ type: "link", attrs: { id, destination: { kind: "file", file }, description: null } }],
  });
  opened.document.content.push({
    type: "paragraph",
    content: [link("l1"), { type: "text", text: " and " }, link("l2")],
  });
  const saved = await author.call("PUT", `${path}/chapters/${chapter.id}`, {
    document: opened.document,
    revision: opened.revision,
  });
  expect(saved.status).toBe(200);
  const told = async () =>
    ((await author.call<any[]>("GET", `${path}/findings`)).body as any[])
      .filter(({ rule }) => rule === "file-dead-ends")
      .map(({ subject, message }) => [subject, message]);
  // What lies on the author's own machine needs no asking.
  expect(await told()).toEqual([["l1", expect.stringContaining("on page 3: “http://localhost:3000/draft”")]]);
  const job = await author.call<{ id: string }>("POST", `${path}/reach`);
  expect(await author.jobEnd(job.body)).toMatchObject({ state: "done", total: 3 });
  expect(await told()).toEqual([
    [
      "l1",
      expect.stringContaining(`has 2 links of its own that lead nowhere, the first on page 2: “${gone}”`),
    ],
  ]);
  const { body: open } = await author.call<any>("GET", `${path}/chapters/${chapter.id}/surroundings`);
  expect(open.deadEnds).toEqual([
    {
      id: file,
      links: [
        { to: gone, page: 2 },
        { to: "http://localhost:3000/draft", page: 3 },
      ],
    },
  ]);
  await send("PUT", `${path}/files/${file}/content`, await leaflet("https://tides.hesterley.example/gauges"));
  expect(await told()).toEqual([]);
});
