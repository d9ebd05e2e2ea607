import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { KeptOrders, type AskedOrder, type LinkKey } from "./kept-orders.ts";

const inEach = 90;
let server: TestServer;
let database: DataSource;
let client: Client;
beforeAll(async () => {
  server = await startTestServer();
  database = server.app.get(DataSource);
  client = await server.client().signUp();
});
afterAll(() => server.close());

/** Words of one length, so that any collation sorts them as their letters are; each stands in three chapters. */
const words = (i: number): string => `walk ${String((i * 37) % inEach).padStart(3, "0")}`;
const chapter = (title: string): string =>
  `# ${title}\n\n${Array.from({ length: inEach }, (_, i) => `[${words(i)}](https://tides.hesterley.example/${i})`).join(" ")}\n\n`;
const newBook = async (): Promise<string> =>
  (await client.bringIn(["One", "Two", "Three"].map(chapter).join(""))).body.book.id;

interface Row {
  text: string;
  chapter: string;
}

async function pages(book: string, asked: string, size = 40): Promise<Row[]> {
  const all: Row[] = [];
  for (let offset = 0; ; offset += size) {
    const { body } = await client.call<{ total: number; rows: Row[] }>(
      "GET",
      `/books/${book}/links?${asked}&offset=${offset}&limit=${size}`,
    );
    all.push(...body.rows);
    if (body.rows.length < size) {
      expect(all).toHaveLength(body.total);
      return all;
    }
  }
}
const told = (rows: Row[]): string[] => rows.map(({ text, chapter }) => `${text} ${chapter}`);
const sorted = (...chapters: string[]): string[] =>
  Array.from({ length: inEach }, (_, i) => `walk ${String(i).padStart(3, "0")}`).flatMap((text) =>
    chapters.map((title) => `${text} ${title}`),
  );

async function rowsRead(): Promise<number> {
  const rows: { Value: string }[] = await database.query("SHOW GLOBAL STATUS LIKE 'Handler\\_read%'");
  return rows.reduce((sum, { Value }) => sum + Number(Value), 0);
}

describe("a ledger that is gone through page by page", () => {
  test("has every link once, in its order, either way", async () => {
    const book = await newBook();
    expect(told(await pages(book, "sort=text"))).toEqual(sorted("One", "Two", "Three"));
    expect((await pages(book, "sort=text&direction=down")).map(({ text }) => text)).toEqual(
      sorted("One", "Two", "Three")
        .map((line) => line.slice(0, "walk 000".length))
        .reverse(),
    );
    expect(told(await pages(book, "sort=text&search=walk+00", 4))).toEqual(
      sorted("One", "Two", "Three").slice(0, 30),
    );
  });

  test.each(["sort=text", "sort=state", "state=unchecked&sort=checked"])(
    "is sorted once, not for each page: %s",
    async (asked) => {
      const book = await newBook();
      const page = (offset: number) =>
        client.call("GET", `/books/${book}/links?${asked}&offset=${offset}&limit=10`);
      await page(0);
      await page(10);
      const before = await rowsRead();
      await page(200);
      // Fewer than there are links, whatever else the house reads meanwhile.
      expect((await rowsRead()) - before).toBeLessThan(3 * inEach);
    },
  );

  test("shows what was changed since the page before", async () => {
    const book = await newBook();
    const path = `/books/${book}/chapters`;
    const firstOf = async (asked: string): Promise<Row> => (await pages(book, asked))[0]!;
    await pages(book, "sort=text");
    const list = (await client.call<{ id: string; title: string }[]>("GET", path)).body;
    const [one, two, three] = list.map(({ id }) => id);
    const { revision, document } = (await client.call<any>("GET", `${path}/${three}`)).body;
    const changed = JSON.parse(JSON.stringify(document).replace("walk 089", "a walk more"));
    await client.call("PUT", `${path}/${three}`, { revision, document: changed });
    expect(await firstOf("sort=text")).toMatchObject({ text: "a walk more", chapter: "Three" });
    await client.call("PUT", `${path}/order`, { chapters: [two, one, three] });
    expect(told(await pages(book, "sort=text")).slice(1, 4)).toEqual([
      "walk 000 Two",
      "walk 000 One",
      "walk 000 Three",
    ]);
    await client.call("DELETE", `${path}/${three}`);
    expect(told(await pages(book, "sort=text"))).toEqual(sorted("Two", "One"));
  });

  test("follows what is known of where links lead", async () => {
    const { body } = await client.bringIn(
      "# One\n\n[well](https://tides.hesterley.example/) and [gone](https://tides.hesterley.example/tables/2019)",
    );
    const book: string = body.book.id;
    const states = async (asked: string) =>
      ((await pages(book, asked)) as unknown as { text: string; state: string }[]).map(
        ({ text, state }) => `${text} ${state}`,
      );
    const unasked = async (): Promise<void> => {
      expect(await states("sort=state")).toEqual(["well unchecked", "gone unchecked"]);
      expect(await states("state=broken")).toEqual([]);
    };
    await unasked();
    await unasked();
    const job = (await client.call<{ id: string }>("POST", `/books/${book}/reach`, { which: "all" })).body;
    expect(await client.jobEnd(job)).toMatchObject({ state: "done" });
    expect(await states("sort=state")).toEqual(["gone broken", "well sound"]);
    expect(await states("state=broken")).toEqual(["gone broken"]);
    await database.query("DELETE FROM reach_outcome WHERE bookId = ? AND state = 'broken'", [book]);
    expect(await states("sort=state")).toEqual(["well sound", "gone unchecked"]);
  });

  test("follows the names of files", async () => {
    const book = await newBook();
    const form = new FormData();
    form.append("file", new Blob(["a plan"]), "aa plan.txt");
    const { stored } = (await client.call<any>("POST", `/books/${book}/files`, form)).body;
    const { file } = stored[0];
    const path = `/books/${book}/chapters`;
    const [{ id }] = (await client.call<any>("GET", path)).body;
    const { revision, document } = (await client.call<any>("GET", `${path}/${id}`)).body;
    const web = JSON.stringify({ kind: "web", address: "https://tides.hesterley.example/5" });
    const changed = JSON.stringify(document).replace(web, JSON.stringify({ kind: "file", file: file.id }));
    expect(changed).toContain(file.id);
    await client.call("PUT", `${path}/${id}`, { revision, document: JSON.parse(changed) });
    const names = async (): Promise<string[]> =>
      (await pages(book, "sort=destination")).map(
        (row) => (row as unknown as { destinationName: string }).destinationName,
      );
    expect((await names())[0]).toBe("aa plan.txt");
    await client.call("PATCH", `/books/${book}/files/${file.id}`, { name: "zz plan.txt" });
    expect((await names()).at(-1)).toBe("zz plan.txt");
  });
});

describe("kept orders", () => {
  const byWords: AskedOrder = { name: "by words", followsState: false, isCheap: false };
  const searched: AskedOrder = { name: "searched", followsState: false, isCheap: true };
  const key = (ordinal: number): LinkKey => ({ chapterId: "c", ordinal });
  const reading = (keys: readonly LinkKey[] = [key(3), key(1)]) => {
    const read = Object.assign(
      () => {
        read.times++;
        return Promise.resolve([...keys]);
      },
      { times: 0 },
    );
    return read;
  };

  test("are read whole when they are asked for again, once for all who ask", async () => {
    const book = await newBook();
    const orders = new KeptOrders(database);
    const read = reading();
    expect(await orders.find(book, byWords, read)).toBeNull();
    expect(await orders.find(book, { ...byWords, name: "by kind" }, read)).toBeNull();
    const asked = await Promise.all([1, 2, 3].map(() => orders.find(book, byWords, read)));
    expect(asked.map((order) => order!.page(1, 5))).toEqual(Array(3).fill([key(1)]));
    expect(read.times).toBe(1);
    expect((await orders.find(book, searched, read))!.total).toBe(2);
    expect(read.times).toBe(2);
  });

  test("that could not be read are read anew", async () => {
    const book = await newBook();
    const orders = new KeptOrders(database);
    const failing = () => Promise.reject(new Error("the database is away"));
    await expect(orders.find(book, searched, failing)).rejects.toThrow("the database is away");
    expect((await orders.find(book, searched, reading()))!.total).toBe(2);
  });

  test("are dropped for others before they take much memory", async () => {
    const book = await newBook();
    const orders = new KeptOrders(database);
    const many = Array<LinkKey>(2_100_000).fill(key(0));
    const [first, second] = [reading(many), reading(many)];
    for (const [name, read] of [
      ["first", first],
      ["second", second],
      ["second", second],
      ["first", first],
    ] as const)
      expect((await orders.find(book, { ...searched, name }, read))!.total).toBe(many.length);
    expect([first.times, second.times]).toEqual([2, 1]);
  });
});
