import { createHash, randomBytes } from "node:crypto";
import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let bookId: string;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  client = await server.client().signUp();
  bookId = (await client.bringIn("# Walks\n\nSee the plan.")).body.book.id;
});

const form = (...files: [name: string, content: Uint8Array | string][]): FormData => {
  const data = new FormData();
  for (const [name, content] of files) data.append("file", new Blob([content as BlobPart]), name);
  return data;
};
const add = async (...files: [string, Uint8Array | string][]) =>
  (await client.call<any>("POST", `/books/${bookId}/files`, form(...files))).body;
const list = async () => (await client.call<any>("GET", `/books/${bookId}/files`)).body;
const fetchFile = (id: string, headers: Record<string, string> = {}) =>
  fetch(`${server.url}/api/books/${bookId}/files/${id}`, { headers: { cookie: client.cookie, ...headers } });
const pdf = "%PDF-1.7\n%âãÏÓ\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF";

/** Links the book's words to a companion file, as the editor would save it. */
async function linkTo(file: string): Promise<void> {
  const search = (await client.call<any>("POST", `/books/${bookId}/links/search`, { phrase: "plan" })).body;
  const [{ chapterId, revision, mentions }] = search.chapters;
  const { from, to } = mentions[0];
  await client.call("POST", `/books/${bookId}/links`, {
    kind: "codes",
    links: [{ chapterId, revision, from, to, destination: { kind: "file", file } }],
  });
}

test("many files come at once, are known by their content, and come back to the byte", async () => {
  // Bytes of no kind: those that come by chance begin as a sound does once in some thousand times.
  const big = Buffer.concat([Buffer.from("log "), randomBytes(3 * 1024 * 1024 + 13)]);
  const { stored, refused } = await add(
    ["R3 plan.pdf", pdf],
    ["table.csv", "hour,height\n1,2"],
    ["log.bin", big],
  );
  expect(refused).toEqual([]);
  expect(stored.map(({ file }: any) => [file.name, file.mediaType, file.size])).toEqual([
    ["R3 plan.pdf", "application/pdf", Buffer.byteLength(pdf)],
    ["table.csv", "text/csv", 15],
    ["log.bin", "application/octet-stream", big.length],
  ]);
  const { file } = stored[2];
  expect(file.sha256).toBe(createHash("sha256").update(big).digest("hex"));
  const answer = await fetchFile(file.id);
  expect(Buffer.from(await answer.arrayBuffer()).equals(big)).toBe(true);
  expect(answer.headers.get("content-disposition")).toContain("log.bin");
  expect((await fetchFile(file.id, { "if-none-match": answer.headers.get("etag")! })).status).toBe(304);
});

test("a name that says another type than the content is told", async () => {
  const { stored } = await add(["plan.png", pdf], ["notes.pdf", "only words"], ["page.html", "<p>hello</p>"]);
  expect(stored[0]).toMatchObject({
    file: { mediaType: "application/pdf" },
    warning: expect.stringContaining("PDF file"),
  });
  expect(stored[1]).toMatchObject({
    file: { mediaType: "text/plain" },
    warning: expect.stringContaining("plain text"),
  });
  expect(stored[2]).toMatchObject({ file: { mediaType: "text/html" }, warning: null });
  const page = await fetchFile(stored[2].file.id);
  expect(page.headers.get("content-disposition")).toContain("attachment");
});

test("a name that is taken gets a number; folders in a name are left out", async () => {
  const { stored } = await add(["plan.pdf", pdf], ["../PLAN.pdf", pdf], ["plan.pdf", pdf]);
  expect(stored.map(({ file }: any) => file.name)).toEqual(["plan.pdf", "PLAN (2).pdf", "plan (3).pdf"]);
});

test("a file over the limit is refused, the others are taken, and nothing of it stays", async () => {
  const { stored, refused } = await add(
    ["big.bin", Buffer.alloc(50 * 1024 * 1024 + 1)],
    ["small.txt", "words"],
  );
  expect(refused).toEqual([expect.objectContaining({ code: "too-large" })]);
  expect(stored.map(({ file }: any) => file.name)).toEqual(["small.txt"]);
  expect((await list()).map(({ name }: any) => name)).toEqual(["small.txt"]);
});

test("links keep leading to a file that is renamed or replaced, and guard it from deletion", async () => {
  const { stored } = await add(["plan.pdf", pdf], ["other.pdf", pdf]);
  const [{ file }, { file: other }] = stored;
  await linkTo(file.id);
  const renamed = await client.call("PATCH", `/books/${bookId}/files/${file.id}`, {
    name: "Refuge plan.pdf",
  });
  expect(renamed.body).toMatchObject({ name: "Refuge plan.pdf", uses: 1 });
  const replaced = await client.call<any>(
    "PUT",
    `/books/${bookId}/files/${file.id}/content`,
    form(["new.txt", "new words"]),
  );
  expect(replaced.body).toMatchObject({
    file: { id: file.id, name: "Refuge plan.pdf", uses: 1 },
    warning: expect.any(String),
  });
  expect(await (await fetchFile(file.id)).text()).toBe("new words");
  const { rows } = (await client.call<any>("GET", `/books/${bookId}/links`)).body;
  expect(rows).toMatchObject([
    { kind: "file", destinationName: "Refuge plan.pdf", destination: `companion:${file.id}` },
  ]);

  const taken = await client.call("PATCH", `/books/${bookId}/files/${other.id}`, { name: "Refuge plan.pdf" });
  expect(taken.body.code).toBe("name-taken");
  expect((await client.call("DELETE", `/books/${bookId}/files/${file.id}`)).body.code).toBe("file-used");
  expect((await client.call("DELETE", `/books/${bookId}/files/${other.id}`)).status).toBe(204);
  expect((await client.call("DELETE", `/books/${bookId}/files/${file.id}?used=yes`)).status).toBe(204);
  expect((await fetchFile(file.id)).status).toBe(404);
});

test("a file that was deleted comes back under its id, and never in place of another", async () => {
  const { file } = (await add(["plan.txt", "the plan"])).stored[0];
  await linkTo(file.id);
  const restore = (id: string, book = bookId) =>
    client.call<any>("POST", `/books/${book}/files/${id}/restore`, form(["plan.txt", "the plan"]));
  expect((await restore(file.id)).body.code).toBe("file-there");
  const other = (await client.bringIn("# Other\n\nA book.")).body.book.id;
  expect((await restore(file.id, other)).body.code).toBe("file-there");
  await client.call("DELETE", `/books/${bookId}/files/${file.id}?used=yes`);
  expect((await restore("no-id")).status).toBe(400);
  expect((await restore(file.id)).body.file).toMatchObject({ id: file.id, name: "plan.txt", uses: 1 });
  expect(await (await fetchFile(file.id)).text()).toBe("the plan");
});

test("what is no form with files is told", async () => {
  expect((await client.call("POST", `/books/${bookId}/files`, { a: 1 })).status).toBe(415);
  expect((await client.call("POST", `/books/${bookId}/files`, form())).body.code).toBe("no-file");
  expect((await client.call("PUT", `/books/${bookId}/files/none/content`, form(["a", "b"]))).status).toBe(
    404,
  );
});

test("the shared drive's files are listed with who may open them, and a tester's events show in reach", async () => {
  const drive = async () => (await client.call<any>("GET", `/books/${bookId}/drive`)).body;
  const files = await drive();
  const plan = files.find(({ name }: any) => name === "R3 refuge plan.pdf");
  expect(plan).toMatchObject({ audience: "anyone", folder: "Refuges" });
  expect(files.find(({ name }: any) => name === "R5 refuge plan.pdf")).toMatchObject({
    audience: "group",
    group: "Causeway wardens",
  });

  const cause = (event: string, share: string) =>
    fetch(`http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}/~/drive.hesterley.example/.events`, {
      method: "POST",
      body: new URLSearchParams({ event, share }),
      redirect: "manual",
    });
  const search = (await client.call<any>("POST", `/books/${bookId}/links/search`, { phrase: "plan" })).body;
  const [{ chapterId, revision, mentions }] = search.chapters;
  const destination = { kind: "file", share: plan.address };
  await client.call("POST", `/books/${bookId}/links`, {
    kind: "codes",
    links: [{ chapterId, revision, ...pick(mentions[0]), destination }],
  });
  const stateAfterRun = async () => {
    await client.jobEnd((await client.call<any>("POST", `/books/${bookId}/reach`)).body);
    return (await client.call<any>("GET", `/books/${bookId}/links`)).body.rows[0].state;
  };
  expect(await stateAfterRun()).toBe("sound");
  await cause("narrowed", "refuge-r3");
  expect(await stateAfterRun()).toBe("guarded");
  await cause("deleted", "refuge-r3");
  expect(await stateAfterRun()).toBe("broken");
  await cause("reset", "");
  await cause("moved", "refuge-r3");
  expect(await stateAfterRun()).toBe("moved");
  await cause("reset", "");
});

test("a link leads to a page of a file, and is told where the file has no such page any more", async () => {
  const exported = async (pages: number) => {
    const markdown = Array.from({ length: pages }, (_, i) => `# Part ${i + 1}\n\nWords.\n`).join("\n");
    const { id } = (await client.bringIn(markdown)).body.book;
    await client.jobEnd((await client.call<any>("POST", `/books/${id}/exports`, { format: "pdf" })).body);
    const [made] = (await client.call<any>("GET", `/books/${id}/exports`)).body;
    return new Uint8Array(await (await client.stream(`/books/${id}/exports/${made.id}/file`)).arrayBuffer());
  };
  const [long, short] = [await exported(4), await exported(1)];
  const { stored } = await add(
    ["plan.pdf", long],
    ["page.html", '<h2 id="low">Low water</h2>'],
    ["a.csv", "a,b"],
    ["bad.pdf", pdf],
  );
  const id = stored[0].file.id;
  const places = async () => (await client.call<any>("GET", `/books/${bookId}/files/places`)).body;
  const [page, plan] = await places();
  expect(page).toEqual({
    id: stored[1].file.id,
    name: "page.html",
    pages: null,
    places: [{ at: "low", name: "Low water" }],
  });
  expect(plan).toMatchObject({ id, name: "plan.pdf" });
  expect(plan.places).toContainEqual({ at: expect.stringMatching(/^nameddest=/), name: "Part 4" });
  const search = (await client.call<any>("POST", `/books/${bookId}/links/search`, { phrase: "plan" })).body;
  const [{ chapterId, revision, mentions }] = search.chapters;
  const destination = { kind: "file", file: id, at: `page=${plan.pages}` };
  await client.call("POST", `/books/${bookId}/links`, {
    kind: "codes",
    links: [{ chapterId, revision, ...pick(mentions[0]), destination }],
  });
  const [row] = (await client.call<any>("GET", `/books/${bookId}/links`)).body.rows;
  expect(row).toMatchObject({ kind: "file", destination: `companion:${id}#page=${plan.pages}` });
  const gone = async () =>
    (await client.call<any>("GET", `/books/${bookId}/findings`)).body.filter(
      (one: any) => one.rule === "file-place-gone",
    );
  expect(await gone()).toEqual([]);
  // What goes out says which page is meant, and is proven, into the file.
  const proof = async () => {
    await client.jobEnd((await client.call<any>("POST", `/books/${bookId}/exports`, { format: "pdf" })).body);
    const [made] = (await client.call<any>("GET", `/books/${bookId}/exports`)).body;
    return (await client.call<any>("GET", `/books/${bookId}/exports/${made.id}`)).body;
  };
  const proven = await proof();
  expect(proven).toMatchObject({ complete: true });
  expect(proven.rows[0].expected).toBe(`files/plan.pdf#page=${plan.pages}`);
  await client.call("PUT", `/books/${bookId}/files/${id}/content`, form(["plan.pdf", short]));
  expect(await gone()).toMatchObject([
    { text: "plan", message: expect.stringContaining(`no page ${plan.pages}`) },
  ]);
  const unproven = await proof();
  expect(unproven).toMatchObject({ complete: false });
  expect(unproven.rows[0]).toMatchObject({
    verdict: "dead-end",
    note: "The file came along, but it has no such page or place.",
  });
});

const pick = ({ from, to }: { from: number; to: number }) => ({ from, to });
