import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { redDot } from "@vennet/core/test/red-dot";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const manuscript = `# Sands

Ask the [office](https://tides.hesterley.example/) before you go.

They go at [ten](https://boats.hesterley.example/).

# Inns

Sleep at [the inn](https://inn.hesterley.example/).
`;

/** Brings a new version of a book's manuscript in, as far as its author looks at it. */
async function look(bookId: string, text: string): Promise<{ id: string; body: any }> {
  const form = new FormData();
  form.set("manuscript", new Blob([text]), "walks.md");
  form.set("review", "yes");
  form.set("as", "version");
  const begun = (await author.call<any>("POST", `/books/${bookId}/import`, form)).body;
  expect(await author.jobEnd(begun)).toMatchObject({ state: "done" });
  return { id: begun.id, body: (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body };
}

async function keep(id: string, choices: string[] = []): Promise<any> {
  const job = (await author.call<any>("POST", `/jobs/${id}/import/keep`, { choices })).body;
  const end = await author.jobEnd(job);
  if (end.state !== "done") return end;
  return (await author.call<any>("GET", `/jobs/${job.id}/import`)).body;
}

const chaptersOf = async (bookId: string): Promise<any[]> =>
  (await author.call<any[]>("GET", `/books/${bookId}/chapters`)).body;
const textsOf = async (bookId: string): Promise<string[]> => {
  const texts: string[] = [];
  for (const { id } of await chaptersOf(bookId)) {
    const { document } = (await author.call<any>("GET", `/books/${bookId}/chapters/${id}`)).body;
    texts.push(
      JSON.stringify(document)
        .match(/"text":"[^"]*"/g)!
        .map((one) => one.slice(8, -1))
        .join(""),
    );
  }
  return texts;
};
const linkIds = async (bookId: string): Promise<string[]> =>
  (await author.call<any>("GET", `/books/${bookId}/links`)).body.rows.map(({ linkId }: any) => linkId);

test("a new version is looked at, taken in as one step, undone and done again", async () => {
  const { book } = (await author.bringIn(manuscript)).body;
  const ids = await linkIds(book.id);
  const before = await textsOf(book.id);
  const next = manuscript
    .replace("before you go", "the day before")
    .replace(/# Inns[\s\S]*$/, "# Boats\n\nRow to [the isle](https://isle.hesterley.example/).\n");
  const looked = await look(book.id, next);
  expect(looked.body).toMatchObject({
    book: null,
    version: {
      hasBase: true,
      same: 0,
      links: { added: 1, changed: 0, removed: 1 },
      chapters: [
        { title: "Sands", kind: "changed", changedParagraphs: 1, changedLinks: 0, clashes: [] },
        { title: "Boats", kind: "new" },
        { title: "Inns", kind: "gone" },
      ],
    },
  });
  expect(await textsOf(book.id)).toEqual(before);

  const kept = await keep(looked.id);
  expect(kept.step.summary).toBe("Took a new version in: chapters 1 changed, 1 new, 1 gone.");
  expect((await chaptersOf(book.id)).map(({ title }) => title)).toEqual(["Sands", "Boats"]);
  expect((await textsOf(book.id))[0]).toContain("Ask the office the day before.");
  expect((await linkIds(book.id)).slice(0, 2)).toEqual(ids.slice(0, 2));

  expect((await author.call("POST", `/books/${book.id}/steps/${kept.step.id}/undo`)).status).toBeLessThan(
    300,
  );
  expect(await textsOf(book.id)).toEqual(before);
  expect(await linkIds(book.id)).toEqual(ids);
  expect((await author.call("POST", `/books/${book.id}/steps/${kept.step.id}/redo`)).status).toBeLessThan(
    300,
  );
  expect((await chaptersOf(book.id)).map(({ title }) => title)).toEqual(["Sands", "Boats"]);
});

test("what was written here stays, and where both were changed the author chooses", async () => {
  const { book } = (await author.bringIn(manuscript)).body;
  const [sands] = await chaptersOf(book.id);
  const path = `/books/${book.id}/chapters/${sands.id}`;
  const { document, revision } = (await author.call<any>("GET", path)).body;
  const written = JSON.parse(
    JSON.stringify(document).replace("before you go.", "before noon.").replace("They go at ", "All go at "),
  );
  expect((await author.call("PUT", path, { document: written, revision })).status).toBe(200);
  const next = manuscript.replace("before you go", "the day before").replace("Sleep at", "Eat at");
  const looked = await look(book.id, next);
  expect(looked.body.version.chapters[0].clashes).toMatchObject([
    { number: 0, here: "Ask the office before noon.", elsewhere: "Ask the office the day before." },
  ]);
  await keep(looked.id, ["elsewhere"]);
  const [first, second] = await textsOf(book.id);
  expect(first).toContain("Ask the office the day before.All go at ten.");
  expect(second).toContain("Eat at the inn.");
});

test("a book that was changed after the look is looked at again, and nothing is written", async () => {
  const { book } = (await author.bringIn(manuscript)).body;
  const looked = await look(book.id, manuscript.replace("Sleep", "Eat"));
  const [sands] = await chaptersOf(book.id);
  await author.call("PATCH", `/books/${book.id}/chapters/${sands.id}`, { title: "Sandbanks" });
  const end = await keep(looked.id);
  expect(end).toMatchObject({
    state: "failed",
    message: expect.stringContaining("has been changed since you looked"),
  });
  expect((await textsOf(book.id))[1]).toContain("Sleep at");
});

test("the same manuscript once more changes nothing, though its pictures and files are not sent again", async () => {
  const text = `${manuscript}\n![Path](img/path.png) [plan](plan.pdf)\n`;
  const form = new FormData();
  form.set("manuscript", new Blob([text]), "walks.md");
  form.append("files", new Blob([redDot as BlobPart]), "path.png");
  form.append("files", new Blob(["%PDF-1.4"]), "plan.pdf");
  const begun = (await author.call<any>("POST", "/books/import", form)).body;
  await author.jobEnd(begun);
  const { book } = (await author.call<any>("GET", `/jobs/${begun.id}/import`)).body;
  const before = await textsOf(book.id);
  const looked = await look(book.id, text);
  expect(looked.body.version).toMatchObject({ chapters: [], same: 2 });
  expect(looked.body.arrival).toMatchObject({ groups: [], told: [] });
  const kept = await keep(looked.id);
  expect(kept.step.summary).toBe("Took a new version in: nothing is another.");
  expect(await textsOf(book.id)).toEqual(before);
});

test("parts and companion pages are known again, and new ones stand where they belong", async () => {
  const page = (title: string, role: string): string => `# <span data-role="${role}">${title}</span>`;
  // What a heading is in its book only our own exports say.
  const ours = `---\ncounts: ${JSON.stringify(defaultConventions)}\n---\n\n`;
  const base = ours + [page("North", "part"), "# Sands", page("Inns", "companion")].join("\n\nWords.\n\n");
  const { body } = await author.bringIn(base);
  const rolesNow = async (): Promise<string[]> =>
    (await chaptersOf(body.book.id)).map(({ title, role }) => `${title}: ${role}`);
  expect(await rolesNow()).toEqual(["North: part", "Sands: chapter", "Inns: companion"]);
  const same = await look(body.book.id, base);
  expect(same.body.version).toMatchObject({ chapters: [], same: 3 });
  expect((await author.call("DELETE", `/jobs/${same.id}/import`)).status).toBe(204);
  const more = [base, page("South", "part"), page("Boats", "companion"), "# Refuges"].join("\n\nOthers.\n\n");
  await keep((await look(body.book.id, more)).id);
  expect(await rolesNow()).toEqual([
    "North: part",
    "Sands: chapter",
    "South: part",
    "Refuges: chapter",
    "Inns: companion",
    "Boats: companion",
  ]);
});
