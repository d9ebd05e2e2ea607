import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => void (server = await startTestServer()));
afterAll(() => server.close());
beforeEach(async () => {
  author = await server.client().signUp();
  const imported = await author.bringIn(
    "# One\n\nSee [tides](https://tides.hesterley.example/).\n\n# Two\n\n[a](https://a.example/) [b](mailto:b@b.example)\n\n# Three",
  );
  bookId = imported.body.book.id;
});

const list = async (): Promise<
  { id: string; title: string; revision: number; links: number; words: number }[]
> => (await author.call<any>("GET", `/books/${bookId}/chapters`)).body;
const read = async (id: string): Promise<any> =>
  (await author.call("GET", `/books/${bookId}/chapters/${id}`)).body;
const save = (id: string, revision: number, document: unknown) =>
  author.call("PUT", `/books/${bookId}/chapters/${id}`, { revision, document });
const withText = (document: any, text: string): any => ({
  ...document,
  content: [document.content[0], { type: "paragraph", content: [{ type: "text", text }] }],
});

describe("saving", () => {
  test("counts revisions, and writes title, words and ledger in the same step", async () => {
    const [one] = await list();
    const { document } = await read(one!.id);
    expect((await save(one!.id, 1, withText(document, "no link any more"))).body).toEqual({
      revision: 2,
      changesLinks: true,
    });
    expect((await list())[0]).toEqual({
      id: one!.id,
      title: "One",
      role: "chapter",
      revision: 2,
      words: 5,
      links: 0,
      written: true,
    });
  });

  test("of words alone leaves the rows of links and places, and says so; what changes them writes them", async () => {
    const [one] = await list();
    const { document } = await read(one!.id);
    const ledger = async () => (await author.call<any>("GET", `/books/${bookId}/links`)).body.rows;
    const before = await ledger();
    expect(before.length).toBeGreaterThan(0);
    // Behind the words that tell places from each other.
    const filled = "so many words ".repeat(40);
    const longer = (words: string) => {
      const copy = structuredClone(document);
      copy.content.push({ type: "paragraph", content: [{ type: "text", text: filled + words }] });
      return copy;
    };
    expect((await save(one!.id, 1, longer("low"))).body["revision"]).toBe(2);
    expect((await save(one!.id, 2, longer("low water"))).body).toEqual({ revision: 3, changesLinks: false });
    expect(await ledger()).toEqual(before);
    const tides = /https:\/\/tides\.hesterley\.example\//;
    const linked = JSON.parse(
      JSON.stringify(longer("low water")).replace(tides, "https://new.example/"),
    ) as unknown;
    expect((await save(one!.id, 3, linked)).body).toEqual({ revision: 4, changesLinks: true });
    expect((await ledger()).map(({ destination }: any) => destination)).toEqual(
      before.map(({ destination }: any) => destination.replace(tides, "https://new.example/")),
    );
  });

  test("on an old revision is refused, and nothing of the newer text is lost", async () => {
    const [one] = await list();
    const { document } = await read(one!.id);
    await save(one!.id, 1, withText(document, "first"));
    const late = await save(one!.id, 1, withText(document, "second"));
    expect([late.status, late.body["code"]]).toEqual([409, "old-revision"]);
    expect(JSON.stringify((await read(one!.id)).document)).toContain("first");
  });

  test("by many at once lets exactly one win", async () => {
    const [one] = await list();
    const { document } = await read(one!.id);
    const saves = await Promise.all(
      Array.from({ length: 8 }, (_, i) => save(one!.id, 1, withText(document, `writer ${i}`))),
    );
    const winners = saves.flatMap(({ status }, i) => (status === 200 ? [i] : []));
    expect(winners).toHaveLength(1);
    expect(saves.filter(({ status }) => status === 409)).toHaveLength(7);
    expect(JSON.stringify(await read(one!.id))).toContain(`writer ${winners[0]}`);
  });

  test("never lets a dangerous link in, nor a document that is none", async () => {
    const [one] = await list();
    const json = JSON.stringify((await read(one!.id)).document);
    for (const address of [
      "javascript:alert(1)",
      "data:text/html,x",
      "vbscript:x",
      "java\\nscript:alert(1)",
    ]) {
      const spoilt = JSON.parse(json.replace("https://tides.hesterley.example/", address)) as unknown;
      const { status, body } = await save(one!.id, 1, spoilt);
      expect([address, status, body["code"], body["field"]]).toEqual([address, 422, "document", "document"]);
    }
    expect((await save(one!.id, 1, { type: "doc" })).status).toBe(422);
    expect(
      (await author.call("POST", `/books/${bookId}/chapters`, { title: "x", document: { type: "doc" } }))
        .status,
    ).toBe(422);
  });
});

describe("the ledger", () => {
  test("can be rebuilt from the documents, and says the same", async () => {
    const database = server.app.get<DataSource>(getDataSourceToken());
    const rows = (): Promise<unknown> =>
      database.query("SELECT * FROM link_use WHERE bookId = ? ORDER BY chapterId, ordinal", [bookId]);
    const before = await rows();
    for (const { id } of await list()) {
      const { revision, document } = await read(id);
      await save(id, revision, document);
    }
    expect(await rows()).toEqual(before);
    expect(before).toEqual(
      expect.arrayContaining([
        expect.objectContaining({
          kind: "web",
          destination: "https://a.example/",
          text: "a",
          askedHash: expect.any(String),
        }),
        expect.objectContaining({
          kind: "email",
          destination: "mailto:b@b.example",
          askedHash: expect.any(String),
        }),
      ]),
    );
  });
});

describe("the list of chapters", () => {
  const titles = async (): Promise<string[]> => (await list()).map(({ title }) => title);

  test("takes new ones at the end or in between, and new titles", async () => {
    await author.call("POST", `/books/${bookId}/chapters`, { title: "Four" });
    await author.call("POST", `/books/${bookId}/chapters`, { title: "One and a half", position: 1 });
    expect(await titles()).toEqual(["One", "One and a half", "Two", "Three", "Four"]);
    const two = (await list())[2]!;
    const bare = await author.call("PATCH", `/books/${bookId}/chapters/${two.id}`, { role: "unnumbered" });
    expect([bare.body["role"], bare.body["revision"]]).toEqual(["unnumbered", 1]);
    for (const role of ["companion", "appendix"])
      expect((await author.call("PATCH", `/books/${bookId}/chapters/${two.id}`, { role })).status).toBe(400);
    const renamed = await author.call("PATCH", `/books/${bookId}/chapters/${two.id}`, { title: "Zwei" });
    expect([renamed.body["title"], renamed.body["revision"]]).toEqual(["Zwei", 2]);
    expect(
      (await author.call("PATCH", `/books/${bookId}/chapters/${two.id}`, { title: "" })).body["field"],
    ).toBe("title");
  });

  test("is put in another order, unless it has changed in the meantime", async () => {
    const ids = (await list()).map(({ id }) => id);
    await author.call("PUT", `/books/${bookId}/chapters/order`, { chapters: [ids[2], ids[0], ids[1]] });
    expect(await titles()).toEqual(["Three", "One", "Two"]);
    for (const wrong of [ids.slice(1), [ids[0], ids[0], ids[1]], [...ids.slice(1), "stranger"]]) {
      const refused = await author.call("PUT", `/books/${bookId}/chapters/order`, { chapters: wrong });
      expect([refused.status, refused.body["code"]]).toEqual([409, "chapters-changed"]);
    }
    expect(await titles()).toEqual(["Three", "One", "Two"]);
  });

  test("of hundreds is put in any order, and has a new one where it is wanted", async () => {
    const many = Array.from({ length: 1100 }, (_, i) => `# ${i}`).join("\n\n");
    bookId = (await author.bringIn(many)).body.book.id;
    const ids = (await list()).map(({ id }) => id);
    const shuffled = ids.map((_, i) => ids[(i * 463) % ids.length]!);
    await author.call("PUT", `/books/${bookId}/chapters/order`, { chapters: shuffled });
    const made = await author.call("POST", `/books/${bookId}/chapters`, { title: "New", position: 701 });
    shuffled.splice(701, 0, made.body["id"] as string);
    expect((await list()).map(({ id }) => id)).toEqual(shuffled);
  });

  test("a deleted chapter is gone from everything, and comes back to its place", async () => {
    const two = (await list())[1]!;
    expect((await author.call("DELETE", `/books/${bookId}/chapters/${two.id}`)).status).toBe(204);
    expect(await titles()).toEqual(["One", "Three"]);
    expect((await author.call("GET", `/books/${bookId}`)).body["links"]).toBe(1);
    expect((await author.call<unknown[]>("GET", `/books/${bookId}/destinations`)).body).toHaveLength(1);
    expect((await save(two.id, 1, {})).status).not.toBe(200);
    await author.call("POST", `/books/${bookId}/chapters/${two.id}/restore`);
    expect(await titles()).toEqual(["One", "Two", "Three"]);
    expect((await author.call("GET", `/books/${bookId}`)).body["links"]).toBe(3);
  });
});

test("many authors write at the same time, and none is in the way of another", async () => {
  const authors = await Promise.all(Array.from({ length: 12 }, () => server.client().signUp()));
  const links = Array.from({ length: 30 }, (_, i) => `[w${i}](https://tides.hesterley.example/${i})`).join(
    " ",
  );
  for (let round = 0; round < 4; round++) {
    const brought = await Promise.all(
      authors.map((one) => one.bringIn(`# T\n\n${links}\n\n# U\n\n${links}`)),
    );
    expect(brought.map(({ status }) => status)).toEqual(Array(12).fill(200));
  }
});
