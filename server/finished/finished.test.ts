import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { titleOfPage } from "@vennet/core/finished/pdf/finished-page";
import type { PdfLink, PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import type { EpubPage } from "@vennet/core/finished/epub/epub-page";
import { getDataSourceToken } from "@nestjs/typeorm";
import { unzipSync } from "fflate";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let pdf: Uint8Array;
let epub: Uint8Array;

const markdown = `# Crossing

The [tide office](https://tides.hesterley.example/today "Hours of the tide office") knows; ask the [clerk](mailto:clerk@causeways.example).

See [the refuges](#refuges) and the [old map](https://maps.hesterley.example/a). Nothing is said of http://bare.hesterley.example here.

# Refuges

Three huts stand on stilts. Back to [the crossing](#crossing).
`;

beforeAll(async () => {
  server = await startTestServer();
  client = await server.client().signUp();
  const { id } = (await client.bringIn(markdown)).body.book;
  const exported = async (format: string): Promise<Uint8Array> => {
    const job = await client.call<any>("POST", `/books/${id}/exports`, { format });
    expect(await client.jobEnd(job.body)).toMatchObject({ state: "done" });
    const all = (await client.call<any>("GET", `/books/${id}/exports`)).body;
    const made = all.find((one: any) => one.format === format);
    const file = await client.stream(`/books/${id}/exports/${made.id}/file`);
    return new Uint8Array(await file.arrayBuffer());
  };
  pdf = await exported("pdf");
  epub = await exported("epub");
});
afterAll(() => server.close());

async function bring(bytes: Uint8Array, name = "walks.pdf", who = client) {
  const form = new FormData();
  form.set("file", new Blob([bytes as BlobPart]), name);
  const begun = await who.call<any>("POST", "/books/finished", form);
  return begun.status === 202 ? { ...begun, body: await who.jobEnd(begun.body) } : begun;
}

async function opened(bytes = pdf, name = "walks.pdf") {
  const { bookId } = (await bring(bytes, name)).body;
  const path = `/books/${bookId}`;
  const pages = async (): Promise<{ id: string; revision: number; document: PdfPage }[]> =>
    (await client.call<any>("GET", `${path}/finished/pages`)).body;
  const change = async (number: number, with_: (page: PdfPage) => Partial<PdfPage>) => {
    const { id, revision, document } = (await pages())[number - 1]!;
    return client.call<any>("PUT", `${path}/chapters/${id}`, {
      revision,
      document: { ...document, ...with_(document) },
    });
  };
  const save = async () => {
    const job = await client.call<any>("POST", `${path}/finished/versions`);
    return client.jobEnd(job.body);
  };
  const saved = async () => {
    const [last] = (await client.call<any>("GET", `${path}/exports`)).body;
    const proof = (await client.call<any>("GET", `${path}/exports/${last.id}`)).body;
    const file = await client.stream(`${path}/exports/${last.id}/file`);
    return { proof, bytes: new Uint8Array(await file.arrayBuffer()) };
  };
  return { path, pages, change, save, saved };
}

const linksOf = (pages: { document: PdfPage }[]): PdfLink[] =>
  pages.flatMap(({ document }) => document.links);

test("a finished PDF comes in with every link, its words and where it leads, and stands in the ledger", async () => {
  const { path, pages } = await opened();
  const links = linksOf(await pages());
  expect(links.map(({ words, destination }) => [words, destination.kind])).toEqual(
    expect.arrayContaining([
      ["tide office", "web"],
      ["clerk", "email"],
      ["the refuges", "place"],
      ["old map", "web"],
      ["the crossing", "place"],
    ]),
  );
  expect(links.find(({ words }) => words === "tide office")!.description).toBe("Hours of the tide office");
  const { rows } = (await client.call<any>("GET", `${path}/links?limit=1000`)).body;
  expect(rows.length).toBe(links.length);
  expect((await client.call<any>("GET", path)).body.finished).toMatchObject({
    fileName: "walks.pdf",
    isTagged: true,
    isSigned: false,
    hasBrokenTable: false,
  });
  const file = await client.stream(`${path}/finished/file`);
  expect(Buffer.from(await file.arrayBuffer()).equals(pdf)).toBe(true);
});

test("links are put in, changed and taken out; the file that came stays as it is, and the saved one is proven", async () => {
  const { change, pages, save, saved } = await opened();
  const [at, page] = Object.entries(await pages()).find(([, { document }]) =>
    document.links.some(({ words }) => words === "old map"),
  )!;
  const map = page.document.links.find(({ words }) => words === "old map")!;
  const fresh: PdfLink = {
    id: "fresh1",
    from: null,
    words: "",
    areas: [[100, 100, 180, 120]],
    destination: { kind: "place", target: "page-1" },
    description: "To the first page",
    frame: { line: "dashed", thickness: 1, colour: "#aa0000" },
    isInStructure: true,
  };
  const answer = await change(Number(at) + 1, ({ links }) => ({
    links: [
      ...links
        .filter(({ words }) => words !== "clerk")
        .map((link) =>
          link.id === map.id
            ? {
                ...link,
                destination: { kind: "web" as const, address: "https://maps.hesterley.example/b?(1)=é" },
              }
            : link,
        ),
      fresh,
    ],
  }));
  expect(answer.body).toMatchObject({ revision: 2 });
  expect(await save()).toMatchObject({
    state: "done",
    message: "Saved: 1 new, 1 changed, 1 taken out. All else is as it was.",
  });
  const { proof, bytes } = await saved();
  expect(proof).toMatchObject({ complete: true, extra: 0, faults: 0 });
  expect(Buffer.from(bytes.subarray(0, pdf.length)).equals(pdf)).toBe(true);
  // Readers that this project did not write.
  const file = join(mkdtempSync(join(tmpdir(), "vennet-")), "saved.pdf");
  writeFileSync(file, bytes);
  expect(spawnSync("qpdf", ["--check", file]).status).toBe(0);
  const urls = spawnSync("pdfinfo", ["-url", file]).stdout.toString();
  expect(urls).toContain("https://maps.hesterley.example/b?(1)=%C3%A9");
  expect(urls).not.toContain("maps.hesterley.example/a");
  expect(urls).not.toContain("clerk@causeways.example");
});

test("a host is retargeted over all pages from the ledger as one step, undone, and nothing is saved where nothing differs", async () => {
  const { path, pages, save } = await opened();
  const before = linksOf(await pages());
  const step = await client.call<any>("POST", `${path}/links/edits`, {
    matching: {},
    edit: { kind: "host", from: "maps.hesterley.example", to: "charts.hesterley.example" },
  });
  expect(step.body.summary).toContain("1 link");
  const addresses = async () =>
    linksOf(await pages()).flatMap(({ destination }) =>
      "address" in destination ? [destination.address] : [],
    );
  expect(await addresses()).toContain("https://charts.hesterley.example/a");
  await client.call("POST", `${path}/steps/${step.body.id}/undo`);
  expect(linksOf(await pages())).toEqual(before);
  expect(await save()).toMatchObject({
    state: "failed",
    message: expect.stringContaining("nothing to save"),
  });
});

test("the rules look at its links as at any others, and mends change them", async () => {
  const { path, change, pages } = await opened();
  const at = (await pages()).findIndex(({ document }) =>
    document.links.some(({ words }) => words === "old map"),
  );
  await change(at + 1, ({ links }) => ({
    links: links.map((link) =>
      link.words === "old map"
        ? { ...link, destination: { kind: "place", target: "nowhere" }, description: null }
        : link,
    ),
  }));
  const findings = (await client.call<any>("GET", `${path}/findings`)).body;
  expect(findings.find((one: any) => one.text === "old map" && one.rule === "place-gone")).toMatchObject({
    chapter: titleOfPage((await pages())[at]!.document),
  });
  // The file is tagged: what reads it aloud is told the description alone.
  const bare = linksOf(await pages()).filter(
    ({ words, description }) => words !== "" && description === null,
  );
  expect(bare.length).toBeGreaterThan(0);
  expect(findings.filter((one: any) => one.rule === "description-lacking")).toHaveLength(bare.length);
  await client.call("POST", `${path}/findings/mend`, { rule: "description-lacking" });
  expect(linksOf(await pages()).filter(({ description }) => description === null)).toEqual([]);
});

test("an e-book comes in, is worked on by the same ledger, rules and steps, and is saved and proven", async () => {
  const { path, save, saved } = await opened(epub, "walks.epub");
  const parts = async (): Promise<{ id: string; revision: number; document: EpubPage }[]> =>
    (await client.call<any>("GET", `${path}/finished/pages`)).body;
  expect((await client.call<any>("GET", path)).body.finished).toMatchObject({
    format: "epub",
    fileName: "walks.epub",
  });
  const file = await client.stream(`${path}/finished/file`);
  expect(file.headers.get("content-type")).toBe("application/epub+zip");
  expect(Buffer.from(await file.arrayBuffer()).equals(epub)).toBe(true);
  const { rows } = (await client.call<any>("GET", `${path}/links?limit=1000`)).body;
  const links = (await parts()).flatMap(({ document }) => document.links);
  expect(rows.map(({ text }: any) => text).sort()).toEqual(links.map(({ words }) => words).sort());
  expect(links.map(({ words }) => words)).toEqual(
    expect.arrayContaining(["tide office", "the refuges", "old map"]),
  );
  // A host from the ledger, as one step that can be taken back; then a link into nothing, which a rule finds.
  const edit = { kind: "host", from: "maps.hesterley.example", to: "charts.hesterley.example" };
  const step = await client.call<any>("POST", `${path}/links/edits`, { matching: {}, edit });
  expect(step.body.summary).toContain("1 link");
  await client.call("POST", `${path}/steps/${step.body.id}/undo`);
  expect((await parts()).flatMap(({ document }) => document.links)).toEqual(links);
  const page = (await parts()).find(({ document }) =>
    document.links.some(({ words }) => words === "old map"),
  )!;
  const put = async (change: (links: EpubPage["links"]) => EpubPage["links"]) => {
    const { id, revision, document } = (await parts()).find(({ id }) => id === page.id)!;
    return client.call<any>("PUT", `${path}/chapters/${id}`, {
      revision,
      document: { ...document, links: change(document.links) },
    });
  };
  const lead = (destination: EpubPage["links"][0]["destination"]) =>
    put((all) => all.map((link) => (link.words === "old map" ? { ...link, destination } : link)));
  await lead({ kind: "place", target: "nowhere" });
  const findings = (await client.call<any>("GET", `${path}/findings`)).body;
  expect(findings.filter((one: any) => one.rule === "place-gone").map((one: any) => one.text)).toEqual([
    "old map",
  ]);
  expect(
    (await lead({ kind: "web", address: "https://maps.hesterley.example/b?x=1&y=é" })).body,
  ).toMatchObject({
    revision: expect.any(Number),
  });
  expect(await save()).toMatchObject({ state: "done", message: "Saved: 1 changed. All else is as it was." });
  const { proof, bytes } = await saved();
  expect(proof).toMatchObject({ complete: true, format: "epub", extra: 0, faults: 0 });
  const [came, now] = [unzipSync(epub), unzipSync(bytes)];
  const touched = Object.keys(came).filter(
    (name) => !Buffer.from(came[name]!).equals(Buffer.from(now[name]!)),
  );
  expect(touched).toEqual([page.document.path]);
  // A page is not saved over another, nor over that of a PDF.
  const over = await put((all) => all).then(async () => {
    const { id, revision, document } = (await parts())[0]!;
    return client.call<any>("PUT", `${path}/chapters/${id}`, {
      revision,
      document: { ...document, type: "pdf-page" },
    });
  });
  expect(over.status).toBe(422);
});

test.each([
  ["no PDF", new TextEncoder().encode("# A manuscript"), 415, /neither a PDF nor an e-book/],
  ["a PDF that is cut", null, 422, /damaged|cannot be/],
])("%s is told, and nothing is kept of it", async (_name, bytes, _status, message) => {
  const other = await server.client().signUp();
  const answer = await bring(bytes ?? pdf.subarray(0, 400), "x.pdf", other);
  expect(answer.body.message).toMatch(message);
  expect((await other.call<any>("GET", "/books")).body).toEqual([]);
});

test("it has no chapters to add, order or export, and a page is not saved over another", async () => {
  const { path, pages } = await opened();
  const [first] = await pages();
  for (const [method, where, body] of [
    ["POST", "/chapters", { title: "New" }],
    ["POST", "/exports", { format: "pdf" }],
    ["DELETE", `/chapters/${first!.id}`, undefined],
  ] as const)
    expect((await client.call<any>(method, path + where, body)).body).toMatchObject({
      code: "finished-file",
    });
  const over = await client.call<any>("PUT", `${path}/chapters/${first!.id}`, {
    revision: 1,
    document: { ...first!.document, number: 2 },
  });
  expect(over.body).toMatchObject({ code: "other-part" });
  const stranger = await server.client().signUp("Somebody Else");
  expect((await stranger.call("GET", `${path}/finished/pages`)).status).toBe(404);
});

test("a PDF with a password is brought in with it, saved, and opens with it; a wrong one is told and kept nowhere", async () => {
  const folder = mkdtempSync(join(tmpdir(), "locked-"));
  const [plain, locked] = [join(folder, "plain.pdf"), join(folder, "locked.pdf")];
  writeFileSync(plain, pdf);
  spawnSync("qpdf", ["--encrypt", "low tide", "owner's", "256", "--", plain, locked]);
  const bytes = new Uint8Array(readFileSync(locked));
  const bringWith = async (password?: string) => {
    const form = new FormData();
    form.set("file", new Blob([bytes as BlobPart]), "locked.pdf");
    if (password !== undefined) form.set("password", password);
    return client.jobEnd((await client.call<any>("POST", "/books/finished", form)).body);
  };
  expect(await bringWith()).toMatchObject({
    state: "failed",
    message: expect.stringContaining("with a password only"),
  });
  expect(await bringWith("high tide")).toMatchObject({
    state: "failed",
    message: expect.stringContaining("not the password"),
  });
  const came = (await bringWith("low tide")) as unknown as { state: string; bookId: string };
  expect(came.state).toBe("done");
  const path = `/books/${came.bookId}`;
  expect((await client.call<any>("GET", path)).body.finished).toMatchObject({ password: "low tide" });
  const pages = (await client.call<any>("GET", `${path}/finished/pages`)).body as {
    id: string;
    revision: number;
    document: PdfPage;
  }[];
  const page = pages.find(({ document }) => document.links.length > 0);
  const links = page!.document.links.map((link) => ({ ...link, description: "The tables" }));
  await client.call("PUT", `${path}/chapters/${page!.id}`, {
    revision: page!.revision,
    document: { ...page!.document, links },
  });
  const job = await client.call<any>("POST", `${path}/finished/versions`);
  expect(await client.jobEnd(job.body)).toMatchObject({
    state: "done",
    message: expect.stringContaining("All else is as it was"),
  });
  const [last] = (await client.call<any>("GET", `${path}/exports`)).body;
  const saved = await (await client.stream(`${path}/exports/${last.id}/file`)).arrayBuffer();
  writeFileSync(plain, new Uint8Array(saved));
  expect(spawnSync("qpdf", ["--password=low tide", "--check", plain]).status).toBe(0);
  expect(spawnSync("qpdf", ["--check", plain]).status).toBe(2);
  const kept = await server.app
    .get<DataSource>(getDataSourceToken())
    .query("SELECT input FROM job WHERE input LIKE '%low tide%' OR input LIKE '%high tide%'");
  expect(kept).toEqual([]);
});
