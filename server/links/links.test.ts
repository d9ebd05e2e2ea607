import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { writeDestination } from "@vennet/core/destination/destination";
import { recognise } from "@vennet/core/destination/recognise";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { linkUses } from "@vennet/core/manuscript/links";
import fc from "fast-check";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let client: Client;
let bookId: string;

const markdown = `# Crossing

The tide office knows. Ask the [tide office](https://tides.hesterley.example/today "Hours"), or the Tide Office’s clerk.

## The Tide Office

See R3 and (R12), and [the map](https://maps.hesterley.example/a?x=1#low). R3 again.

# Refuges

No tide office here; a [map](https://maps.hesterley.example/b) and [mail](mailto:a@causeways.example).
`;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

async function open(text = markdown): Promise<void> {
  client = await server.client().signUp();
  bookId = (await client.bringIn(text)).body.book.id;
}
const get = async (path: string) => (await client.call<any>("GET", `/books/${bookId}${path}`)).body;
const post = (path: string, body: unknown) => client.call<any>("POST", `/books/${bookId}${path}`, body);

/** What the documents themselves say, chapter by chapter: what the ledger has to equal. */
async function walk(): Promise<unknown[]> {
  const rows: unknown[] = [];
  for (const chapter of await get("/chapters")) {
    const { document } = await get(`/chapters/${chapter.id}`);
    for (const use of linkUses(readChapter(document)))
      rows.push([
        chapter.id,
        use.id,
        use.text,
        use.destination.kind,
        writeDestination(use.destination),
        use.description,
      ]);
  }
  return rows;
}
const ledger = async () =>
  (await get("/links?limit=1000")).rows.map((row: any) => [
    row.chapterId,
    row.linkId,
    row.text,
    row.kind,
    row.destination,
    row.description,
  ]);

describe("the ledger", () => {
  beforeAll(() => open());

  test("lists every link in reading order, under its heading", async () => {
    expect(await ledger()).toEqual(await walk());
    const { total, rows } = await get("/links");
    expect(total).toBe(4);
    expect(rows.map((row: any) => [row.text, row.chapter, row.heading, row.description])).toEqual([
      ["tide office", "Crossing", "", "Hours"],
      ["the map", "Crossing", "The Tide Office", null],
      ["map", "Refuges", "", null],
      ["mail", "Refuges", "", null],
    ]);
  });

  test.each([
    ["search=MAP", 2],
    ["search=refuges", 2],
    ["search=map%20crossing", 1],
    ["search=100%25", 0],
    ["kind=email", 1],
    ["state=unchecked", 4],
    ["state=broken", 0],
    ["described=yes", 1],
    ["described=no", 3],
    ["destination=https://maps.hesterley.example/b", 1],
  ])("filtered by %s has %i", async (query, count) => {
    expect((await get(`/links?${query}`)).total).toBe(count);
  });

  test("is sorted by any column, and read page by page", async () => {
    const texts = async (query: string) => (await get(`/links?${query}`)).rows.map((row: any) => row.text);
    expect(await texts("sort=text")).toEqual(["mail", "map", "the map", "tide office"]);
    expect(await texts("sort=destination&direction=down")).toEqual(["mail", "tide office", "map", "the map"]);
    expect(await texts("limit=2&offset=1")).toEqual(["the map", "map"]);
    expect(await texts("limit=2&offset=1&direction=down")).toEqual(["map", "the map"]);
    expect(await texts("offset=4")).toEqual([]);
    const [, refuges] = await get("/chapters");
    expect(await texts(`chapter=${refuges.id}&offset=1`)).toEqual(["mail"]);
    for (const offset of ["1e30", "-1", "1.5", "tide"])
      expect((await client.call("GET", `/books/${bookId}/links?offset=${offset}`)).status).toBe(400);
    for (const sort of ["position", "kind", "description", "chapter", "heading", "state", "checked"])
      expect(await texts(`sort=${sort}&direction=down`)).toHaveLength(4);
    expect((await client.call("GET", `/books/${bookId}/links?sort=text;DROP`)).status).toBe(400);
  });

  test("is grouped by destination, and written as CSV with the columns that are wanted", async () => {
    const groups = await get("/links/groups?kind=web");
    expect(groups.map((group: any) => [group.destination, group.count, group.texts])).toContainEqual([
      "https://maps.hesterley.example/b",
      1,
      ["map"],
    ]);
    const response = await fetch(
      `${server.url}/api/books/${bookId}/links.csv?columns=text,destination&kind=email`,
      {
        headers: { cookie: client.cookie },
      },
    );
    expect(response.headers.get("content-type")).toContain("text/csv");
    expect(await response.text()).toBe("Link text,Destination\nmail,mailto:a@causeways.example\n");
  });

  test("runs nothing in a program that opens the CSV, however a cell begins", async () => {
    await open(
      '# T\n\n[a](https://a.example/ "&#9;=1+1") [b](https://b.example/ "&#13;=2+2") [c](https://c.example/ "@sum")',
    );
    const csv = await fetch(`${server.url}/api/books/${bookId}/links.csv?columns=description`, {
      headers: { cookie: client.cookie },
    });
    const cells = (await csv.text()).split("\n").slice(1).join("\n");
    expect(cells).toMatch(/=1\+1/);
    // The characters with which a formula may begin (OWASP, CSV injection, from memory).
    expect(cells).not.toMatch(/(^|\n|")[=+@\t\r-]/);
  });

  test("is another author's nothing", async () => {
    const stranger = await server.client().signUp();
    for (const path of ["/links", "/links/groups", "/places", "/steps", "/files", "/drive"])
      expect((await stranger.call("GET", `/books/${bookId}${path}`)).status).toBe(404);
  });
});

describe("editing many links", () => {
  beforeAll(() => open());

  test("a host is retargeted after a preview, as one step, which one undo takes back", async () => {
    const before = await walk();
    const request = {
      matching: { kind: "web" },
      edit: { kind: "host", from: "maps.hesterley.example", to: "charts.hesterley.example" },
    };
    const preview = (await post("/links/edits/preview", request)).body;
    expect(preview).toMatchObject({ changing: 2, unchanged: 1 });
    expect(preview.rows.map((row: any) => row.after)).toEqual([
      "https://charts.hesterley.example/a?x=1#low",
      "https://charts.hesterley.example/b",
    ]);
    expect(await walk()).toEqual(before);

    const step = (await post("/links/edits", request)).body;
    expect(step.summary).toContain("2 links");
    expect((await get("/links?search=charts")).total).toBe(2);
    expect(await ledger()).toEqual(await walk());
    expect((await get("/chapters")).map((chapter: any) => chapter.revision)).toEqual([2, 2]);

    const undone = (await post(`/steps/${step.id}/undo`, {})).body;
    expect(undone).toMatchObject({ undone: 2, left: 0 });
    expect(await walk()).toEqual(before);
    expect(await ledger()).toEqual(before);
    expect((await post(`/steps/${step.id}/undo`, {})).body.code).toBe("undone");
  });

  test("links to files that were not brought along start from a web address that is given later", async () => {
    const { book } = (
      await client.bringIn(
        "# T\n\n[a](plan.pdf) [b](../maps/low%20water.html#nine) [c](https://c.example/) [d](#t)",
      )
    ).body;
    const edit = { kind: "base", base: "https://tides.hesterley.example/guide/index.html" };
    const asked = { matching: {}, edit };
    const preview = (await client.call<any>("POST", `/books/${book.id}/links/edits/preview`, asked)).body;
    expect(preview).toMatchObject({ changing: 2, unchanged: 2 });
    const step = (await client.call<any>("POST", `/books/${book.id}/links/edits`, asked)).body;
    expect(step.summary).toBe(
      "Made web links of 2 links, from https://tides.hesterley.example/guide/index.html.",
    );
    // RFC 3986, 5.2.
    const { rows } = (await client.call<any>("GET", `/books/${book.id}/links?kind=web`)).body;
    expect(rows.map(({ destination }: any) => destination)).toEqual([
      "https://tides.hesterley.example/guide/plan.pdf",
      "https://tides.hesterley.example/maps/low%20water.html#nine",
      "https://c.example/",
    ]);
    for (const base of ["", "plan.pdf", "ftp://a.example/"]) {
      const refused = await client.call<any>("POST", `/books/${book.id}/links/edits`, {
        matching: {},
        edit: { kind: "base", base },
      });
      expect(refused.status).toBe(400);
    }
  });

  test("a step that was undone is done again, and undone again; not over what was written since", async () => {
    const edit = { kind: "host", from: "maps.hesterley.example", to: "sea.hesterley.example" };
    const step = (await post("/links/edits", { matching: { kind: "web" }, edit })).body;
    const leading = async (): Promise<string[]> =>
      (await client.call<any>("GET", `/books/${bookId}/links?kind=web`)).body.rows.map(
        ({ destination }: any) => destination as string,
      );
    const made = await leading();
    expect((await post(`/steps/${step.id}/redo`, {})).body.code).toBe("not-undone");
    for (let again = 0; again < 2; again++) {
      expect((await post(`/steps/${step.id}/undo`, {})).body).toMatchObject({ left: 0 });
      expect(await leading()).not.toEqual(made);
      expect((await post(`/steps/${step.id}/redo`, {})).body).toMatchObject({ id: step.id, undoneAt: null });
      expect(await leading()).toEqual(made);
    }
    await post(`/steps/${step.id}/undo`, {});
    const path = `/books/${bookId}/chapters/${step.chapters[0].chapterId}`;
    const { document, revision } = (await client.call<any>("GET", path)).body;
    document.content.push({ type: "paragraph", content: [{ type: "text", text: "More." }] });
    await client.call("PUT", path, { document, revision });
    expect((await post(`/steps/${step.id}/redo`, {})).body.code).toBe("changed-since");
  });

  test("undo spares what was written since: a changed chapter gets back its links, not its text", async () => {
    const { rows } = await get("/links?kind=web&search=crossing");
    const links = rows.map(({ chapterId, linkId }: any) => ({ chapterId, linkId }));
    const destination = { kind: "web", address: "https://new.hesterley.example/" };
    const step = (await post("/links/edits", { links, edit: { kind: "retarget", destination } })).body;
    const chapterId = links[0].chapterId as string;
    const { document, revision } = await get(`/chapters/${chapterId}`);
    const text = JSON.stringify(document).replace("knows.", "knows best.");
    await client.call("PUT", `/books/${bookId}/chapters/${chapterId}`, {
      revision,
      document: JSON.parse(text),
    });
    expect((await post(`/steps/${step.id}/undo`, {})).body).toMatchObject({ undone: 2, left: 0 });
    const after = await get(`/chapters/${chapterId}`);
    expect(JSON.stringify(after.document)).toContain("knows best.");
    expect((await get("/links?search=new.hesterley")).total).toBe(0);
  });

  test("links are removed with their words kept, and described", async () => {
    const { rows } = await get("/links?kind=email");
    const links = rows.map(({ chapterId, linkId }: any) => ({ chapterId, linkId }));
    await post("/links/edits", { links, edit: { kind: "describe", description: "Writes to the wardens" } });
    expect((await get("/links?kind=email")).rows[0].description).toBe("Writes to the wardens");
    const step = (await post("/links/edits", { links, edit: { kind: "remove" } })).body;
    expect((await get("/links?kind=email")).total).toBe(0);
    expect(JSON.stringify((await get(`/chapters/${links[0].chapterId}`)).document)).toContain("mail");
    await post(`/steps/${step.id}/undo`, {});
    expect((await get("/links?kind=email")).total).toBe(1);
  });

  test.each([
    [{ edit: { kind: "remove" } }, "no-links"],
    [{ matching: { search: "nothing has this" }, edit: { kind: "remove" } }, "no-links"],
    [{ matching: {}, edit: { kind: "host", from: "nobody.example", to: "a.example" } }, "nothing-changes"],
    [{ matching: {}, edit: { kind: "host", from: "a b", to: "a.example" } }, "host"],
    [{ matching: {}, edit: { kind: "retarget" } }, "no-destination"],
    [
      {
        matching: {},
        edit: { kind: "retarget", destination: { kind: "web", address: "javascript:alert(1)" } },
      },
      "invalid",
    ],
  ])("%j is refused as %s", async (request, code) => {
    const answer = await post("/links/edits", request);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.body.code).toBe(code);
  });
});

test("a preview shows the first 500 changes and counts all; a CSV cell is never a formula", async () => {
  const many = Array.from({ length: 620 }, (_, i) => `[w${i}](https://many.hesterley.example/${i})`).join(
    " ",
  );
  await open(`# Many\n\n[=1+1](https://many.hesterley.example/f) ${many}`);
  const request = {
    matching: {},
    edit: { kind: "host", from: "many.hesterley.example", to: "few.hesterley.example" },
  };
  const preview = (await post("/links/edits/preview", request)).body;
  expect([preview.rows.length, preview.changing]).toEqual([500, 621]);
  const csv = await fetch(`${server.url}/api/books/${bookId}/links.csv?search=1%2B1`, {
    headers: { cookie: client.cookie },
  });
  expect((await csv.text()).split("\n")[1]).toMatch(/^'=1\+1,web,/);
  expect((await post("/links/edits", request)).body.summary).toContain("621 links");
  expect((await get("/links?search=few")).total).toBe(621);
});

test("a companion file is known in the ledger by its name, and told when it is gone", async () => {
  await open("# One\n\nThe plan.");
  const form = new FormData();
  form.set("file", new Blob(["words"]), "Refuge plan.txt");
  const { stored } = (await client.call<any>("POST", `/books/${bookId}/files`, form)).body;
  const { id } = stored[0].file;
  const [{ chapterId, revision, mentions }] = (await post("/links/search", { phrase: "plan" })).body.chapters;
  const { from, to } = mentions[0];
  await post("/links", {
    kind: "codes",
    links: [{ chapterId, revision, from, to, destination: { kind: "file", file: id } }],
  });
  expect((await get("/links?search=refuge")).rows).toMatchObject([
    { destinationName: "Refuge plan.txt", state: "unchecked" },
  ]);
  expect((await get("/links/groups")).map((group: any) => group.destinationName)).toEqual([
    "Refuge plan.txt",
  ]);
  await client.call("DELETE", `/books/${bookId}/files/${id}?used=yes`);
  expect((await get("/links")).rows[0].destinationName).toBe("a file that is gone");
});

test("addresses that stand in the text and are no links are told on arrival, found, and linked as one step", async () => {
  client = await server.client().signUp();
  const { body } = await client.bringIn(
    "<!doctype html><h1>Ways</h1><p>See www.tides.example, <a href='https://maps.hesterley.example/'>https://maps.hesterley.example/</a> or wardens@causeways.example.</p><h1>Huts</h1><p>Their page: https://huts.hesterley.example/low</p>",
  );
  bookId = body.book.id;
  expect(body.arrival.told).toMatchObject([{ sort: "Addresses without a link", count: 3 }]);
  const { chapters } = (await post("/links/search", { addresses: true })).body;
  expect(chapters.map((chapter: any) => chapter.mentions.map(({ text }: any) => text))).toEqual([
    ["www.tides.example", "wardens@causeways.example"],
    ["https://huts.hesterley.example/low"],
  ]);
  const links = chapters.flatMap(({ chapterId, revision, mentions }: any) =>
    mentions.map(({ from, to, text }: any) => ({
      chapterId,
      revision,
      from,
      to,
      destination: recognise(text).destination,
    })),
  );
  const step = (await post("/links", { kind: "addresses", links })).body;
  expect(step).toMatchObject({ kind: "addresses", summary: "Linked addresses in 3 places in 2 chapters." });
  expect((await get("/links")).rows.map((row: any) => row.destinationName)).toEqual([
    "https://www.tides.example/",
    "https://maps.hesterley.example/",
    "mailto:wardens@causeways.example",
    "https://huts.hesterley.example/low",
  ]);
  expect((await post("/links/search", { addresses: true })).body.chapters).toEqual([]);
  await post(`/steps/${step.id}/undo`, {});
  expect((await post("/links/search", { addresses: true })).body.chapters).toHaveLength(2);
});

describe("every mention, and item codes", () => {
  beforeAll(() => open());

  test("are found over the whole book or one chapter, linked as one step, and reported", async () => {
    const found = (await post("/links/search", { phrase: "tide office" })).body;
    expect(found.chapters.map((chapter: any) => chapter.mentions.length)).toEqual([4, 1]);
    const only = (
      await post("/links/search", { phrase: "tide office", chapterId: found.chapters[1].chapterId })
    ).body;
    expect(only.chapters).toHaveLength(1);
    const destination = { kind: "web", address: "https://tides.hesterley.example/today" };
    const links = found.chapters.flatMap(({ chapterId, revision, mentions }: any) =>
      mentions
        .filter((mention: any) => !mention.link && !mention.inHeading)
        .map(({ from, to }: any) => ({ chapterId, revision, from, to, destination })),
    );
    const step = (await post("/links", { kind: "mentions", of: "tide office", links })).body;
    expect(step).toMatchObject({
      summary: "Linked “tide office” in 3 places in 2 chapters.",
      chapters: [{ links: 2 }, { links: 1 }],
    });
    expect(
      (await get("/links?destination=https://tides.hesterley.example/today")).rows.map(
        (row: any) => row.text,
      ),
    ).toEqual(["tide office", "tide office", "Tide Office", "tide office"]);
    expect((await post("/links", { kind: "mentions", links })).body.code).toBe("old-revision");
    expect((await post(`/steps/${step.id}/undo`, {})).body).toMatchObject({ undone: 3 });
    expect((await get("/links")).total).toBe(4);
  });

  test("are told in the order of the book, parts among its chapters", async () => {
    await open();
    await post("/chapters", { title: "The tide office", role: "part", position: 0 });
    await post("/chapters", { title: "Another tide office", role: "companion" });
    const found = (await post("/links/search", { phrase: "tide office" })).body;
    const listed = await get("/chapters");
    expect(found.chapters.map(({ chapterId }: any) => chapterId)).toEqual(listed.map(({ id }: any) => id));
    expect(listed[0].title).toBe("The tide office");
  });

  test("codes are found by examples; examples of different build are refused", async () => {
    const found = (await post("/links/search", { examples: ["R3", "R12"] })).body;
    expect(found.pattern).toBe("R\\d+");
    expect(found.chapters[0].mentions.map((mention: any) => mention.text)).toEqual(["R3", "R12", "R3"]);
    expect((await post("/links/search", { examples: ["R3", "12-x"] })).body.code).toBe("no-pattern");
    expect((await post("/links/search", {})).body.code).toBe("no-phrase");
  });
});

test("companion pages stand after the chapters, and tell whether they are written", async () => {
  await open();
  const page = (await post("/chapters", { title: "Packing list", role: "companion" })).body;
  await post("/chapters", { title: "Last chapter" });
  expect(
    (await get("/chapters")).map((chapter: any) => [chapter.title, chapter.role, chapter.written]),
  ).toEqual([
    ["Crossing", "chapter", true],
    ["Refuges", "chapter", true],
    ["Last chapter", "chapter", false],
    ["Packing list", "companion", false],
  ]);
  const place = (await get("/places")).find((one: any) => one.text === "Packing list");
  expect(place).toMatchObject({ chapterId: page.id, role: "companion", unwritten: true });
});

test("a page's title is fetched through reach, and never from the author's own network", async () => {
  await open();
  const title = async (address: string) =>
    (await get(`/page-title?address=${encodeURIComponent(address)}`)).title;
  expect(await title("https://tides.hesterley.example/tables/today")).toBe(
    "Hesterley Tide Office — tables today",
  );
  expect(await title("https://old-tides.example/x")).toBe("Hesterley Tide Office — x");
  expect(await title("https://tides.hesterley.example/tables/2019")).toBeNull();
  expect(await title(`${server.url}/`)).toBeNull();
  expect(await get("/page-title?address=javascript:alert(1)")).toMatchObject({ code: "scheme" });
});

test("the ledger equals a walk over all documents after any sequence of operations", async () => {
  await open();
  const word = fc.constantFrom("tide", "office", "map", "R3", "the");
  const operation = fc.oneof(
    fc.record({ kind: fc.constant("link" as const), word, pick: fc.nat(5) }),
    fc.record({ kind: fc.constant("retarget" as const), pick: fc.nat(5), path: word }),
    fc.record({ kind: fc.constant("remove" as const), pick: fc.nat(5) }),
    fc.record({ kind: fc.constant("undo" as const) }),
    fc.record({ kind: fc.constant("delete chapter" as const) }),
    fc.record({ kind: fc.constant("add chapter" as const), word }),
  );
  const perform = async (step: typeof operation extends fc.Arbitrary<infer T> ? T : never): Promise<void> => {
    const { rows } = await get("/links?limit=1000");
    const row = "pick" in step && rows.length > 0 ? rows[step.pick % rows.length] : null;
    const links = row && [{ chapterId: row.chapterId, linkId: row.linkId }];
    if (step.kind === "link") {
      const { chapters } = (await post("/links/search", { phrase: step.word })).body;
      const all = chapters.flatMap(({ chapterId, revision, mentions }: any) =>
        mentions.map(({ from, to }: any) => ({
          chapterId,
          revision,
          from,
          to,
          destination: { kind: "web", address: "https://a.example/" },
        })),
      );
      if (all.length > 0) await post("/links", { kind: "mentions", links: all.slice(0, step.pick + 1) });
    } else if (step.kind === "retarget" && links)
      await post("/links/edits", {
        links,
        edit: { kind: "retarget", destination: { kind: "web", address: `https://b.example/${step.path}` } },
      });
    else if (step.kind === "remove" && links) await post("/links/edits", { links, edit: { kind: "remove" } });
    else if (step.kind === "undo") {
      const last = (await get("/steps")).find((one: any) => one.undoneAt === null);
      if (last) await post(`/steps/${last.id}/undo`, {});
    } else if (step.kind === "delete chapter") {
      const chapters = await get("/chapters");
      if (chapters.length > 1) await client.call("DELETE", `/books/${bookId}/chapters/${chapters.at(-1).id}`);
    } else if (step.kind === "add chapter") await post("/chapters", { title: step.word });
  };
  await fc.assert(
    fc.asyncProperty(fc.array(operation, { maxLength: 8 }), async (steps) => {
      for (const step of steps) {
        await perform(step);
        expect(await ledger()).toEqual(await walk());
      }
    }),
    { numRuns: 12 },
  );
});

test("a link gets other words from the ledger; one undo brings the old ones back, also after later edits", async () => {
  const { body } = await client.bringIn("# One\n\nSee [the office](https://tides.example/) first.\n\nMore.");
  const path = `/books/${body.book.id}`;
  const row = async () => (await client.call<any>("GET", `${path}/links`)).body.rows[0];
  const { chapterId, linkId } = await row();
  const links = [{ chapterId, linkId }];
  const refused = await client.call<any>("POST", `${path}/links/edits`, {
    links,
    edit: { kind: "words", text: " " },
  });
  expect([refused.status, refused.body.message]).toEqual([400, "A link needs words to stand on."]);
  const step = await client.call<any>("POST", `${path}/links/edits`, {
    links,
    edit: { kind: "words", text: "the Tide Office" },
  });
  expect(step.body).toMatchObject({ kind: "words", summary: "Gave 1 link other words." });
  expect(await row()).toMatchObject({
    linkId,
    text: "the Tide Office",
    destination: "https://tides.example/",
  });
  // The chapter is changed elsewhere in the meantime.
  const { document, revision } = (await client.call<any>("GET", `${path}/chapters/${chapterId}`)).body;
  document.content[2].content[0].text = "More words.";
  await client.call("PUT", `${path}/chapters/${chapterId}`, { revision, document });
  await client.call("POST", `${path}/steps/${step.body.id}/undo`, {});
  expect(await row()).toMatchObject({ linkId, text: "the office" });
});

test("other words for several links of one paragraph leave all around them as it was", async () => {
  const { body } = await client.bringIn(
    "# One\n\nSee [a](https://a.example/), [the second](https://b.example/) and [c](https://c.example/) first.",
  );
  const path = `/books/${body.book.id}`;
  const { rows } = (await client.call<any>("GET", `${path}/links`)).body;
  const links = rows.map(({ chapterId, linkId }: any) => ({ chapterId, linkId }));
  await client.call("POST", `${path}/links/edits`, { links, edit: { kind: "words", text: "the tables" } });
  const { document } = (await client.call<any>("GET", `${path}/chapters/${rows[0].chapterId}`)).body;
  const words = document.content[1].content.map(({ text }: any) => text).join("");
  expect(words).toBe("See the tables, the tables and the tables first.");
});

test("words, destination and description of a link are changed as one, and come back as one", async () => {
  const { body } = await client.bringIn("# One\n\nSee [the office](https://tides.example/) first.");
  const path = `/books/${body.book.id}`;
  const row = async () => (await client.call<any>("GET", `${path}/links`)).body.rows[0];
  const before = await row();
  const chapter = async () => (await client.call<any>("GET", `${path}/chapters`)).body[0];
  const { revision } = await chapter();
  const links = [{ chapterId: before.chapterId, linkId: before.linkId }];
  const destination = { kind: "telephone", address: "tel:+44-20-7946-0000" };
  const edit = { kind: "change", text: "the tide office", destination, description: "By day" };
  const step = await client.call<any>("POST", `${path}/links/edits`, { links, edit });
  expect([step.status, step.body.summary]).toEqual([201, "Changed 1 link."]);
  expect(await row()).toMatchObject({
    text: "the tide office",
    kind: "telephone",
    destination: "tel:+44-20-7946-0000",
    destinationName: "tel:+44-20-7946-0000",
    description: "By day",
  });
  expect((await chapter()).revision).toBe(revision + 1);
  // What is so already is no change.
  expect((await client.call("POST", `${path}/links/edits`, { links, edit })).status).toBe(422);
  await client.call("POST", `${path}/steps/${step.body.id}/undo`);
  expect(await row()).toMatchObject({
    text: before.text,
    destination: before.destination,
    description: null,
  });
});
