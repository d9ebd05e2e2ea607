import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const manuscript = `# Tides

[The office](https://tides.hesterley.example/) and [low water](https://tides.hesterley.example/low).

# Ways

[the  office](https://ferry.hesterley.example/), [a map](https://maps.hesterley.example/), [tables](https://tides.hesterley.example/low).

# Alone

[Wade](https://weather.hesterley.example/) or [write](mailto:wardens@causeways.example).
`;

test("what is known beside a chapter is what its rules look at, and nothing of another book", async () => {
  const { book } = (await author.bringIn(manuscript)).body;
  const chapters = (await author.call<any>("GET", `/books/${book.id}/chapters`)).body;
  await author.jobEnd((await author.call<any>("POST", `/books/${book.id}/reach`)).body);
  const told = async (query = "") =>
    (await author.call<any>("GET", `/books/${book.id}/destinations${query}`)).body as any[];
  const whole = await told();
  expect(whole).toHaveLength(6);
  const beside = await told(`?chapter=${chapters[0].id}`);
  expect(beside.map(({ address }) => address)).toEqual([
    "https://tides.hesterley.example/",
    "https://tides.hesterley.example/low",
    "https://ferry.hesterley.example/",
    // By whose domain a slip of another is known.
    "mailto:wardens@causeways.example",
  ]);
  // All that is known of each, with its links in every chapter.
  for (const one of beside) expect(whole).toContainEqual(one);
  expect(beside[1].uses.map(({ chapter }: { chapter: string }) => chapter)).toEqual(["Tides", "Ways"]);

  const plain = (await author.bringIn("# A\n\n[x](https://a.example/)\n\n# B\n\nNo link.")).body.book.id;
  const [, without] = (await author.call<any>("GET", `/books/${plain}/chapters`)).body;
  expect((await author.call<any>("GET", `/books/${plain}/destinations?chapter=${without.id}`)).body).toEqual(
    [],
  );
  // A chapter of another book tells nothing.
  const other = (await author.bringIn("# B\n\n[the office](https://b.example/)")).body.book.id;
  expect(
    (await author.call<any>("GET", `/books/${other}/destinations?chapter=${chapters[0].id}`)).body,
  ).toEqual([]);
});
