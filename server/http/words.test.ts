import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let book: string;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  book = (await author.call<{ id: string }>("POST", "/books", { title: "  The Causeways " })).body.id;
});
afterAll(() => server.close());

describe("words that somebody gives", () => {
  test("are kept without blanks around them", async () => {
    expect((await author.call("GET", `/books/${book}`)).body).toMatchObject({ title: "The Causeways" });
  });

  test("are kept on one line", async () => {
    const title = "The \n Causeways\u2028of the Sound";
    const { body } = await author.call("PATCH", `/books/${book}`, { title });
    expect(body).toMatchObject({ title: "The Causeways of the Sound" });
  });

  test.each([
    ["no blanks alone", "   ", "Give the book a title."],
    ["nothing but signs that no file can hold", "\ufeff\u0001", "Give the book a title."],
    ["nothing but signs that nobody sees", "\u200b\u2060\u00ad", "Give the book a title."],
    ["not nothing itself", null, "Give the book a title."],
    ["no number", 7, "Give the book a title."],
    ["no more than are kept", "x".repeat(1_501), "This is 1,501 characters long; at most 500 are kept."],
  ])("may be %s", async (_, title, message) => {
    const { status, body } = await author.call("PATCH", `/books/${book}`, { title });
    expect({ status, message: body["message"] }).toEqual({ status: 400, message });
  });

  test("are no blanks alone where a link stands on them", async () => {
    const edit = { edit: { kind: "words", text: "  " }, links: [{ chapterId: "low", linkId: "tables" }] };
    const { status, body } = await author.call("POST", `/books/${book}/links/edits`, edit);
    expect({ status, message: body["message"] }).toEqual({
      status: 400,
      message: "A link needs words to stand on.",
    });
  });
});

// PDF/UA-1 (ISO 14289-1, 7.21.8) and XML 1.0 (2.2) leave these out.
test("signs that no file can hold stay out of what is written, so that every export is sound", async () => {
  const odd = "a\0\u0001b\u000bc\u001bd\u0093e\ufeff\ufff9f\ufffag\ufffbh\ufffc\ufffe\ud800i\tj";
  const link = {
    id: "tables",
    destination: { kind: "web", address: "https://tides.hesterley.example/" },
    description: `Says ${odd}`,
  };
  const id = await author.write(
    [
      {
        type: "doc",
        content: [
          { type: "title", attrs: { id: "low" }, content: [{ type: "text", text: `Low ${odd}` }] },
          {
            type: "paragraph",
            content: [
              { type: "text", text: "\ufeff" },
              { type: "text", text: `tables ${odd}`, marks: [{ type: "link", attrs: link }] },
            ],
          },
        ],
      },
    ],
    { title: `The ${odd}`, author: `Pell ${odd}` },
  );
  const [chapter] = (await author.call<{ id: string }[]>("GET", `/books/${id}/chapters`)).body;
  const { body } = await author.call("GET", `/books/${id}/chapters/${chapter!.id}`);
  expect(body["document"]).toMatchObject({
    content: [
      { content: [{ text: "Low ab cd“efghi\tj" }] },
      { content: [{ text: "tables ab cd“efghi\tj" }] },
    ],
  });
  for (const format of ["pdf", "epub", "web", "markdown", "docx", "odt"] as const) {
    const { proof } = await author.exported(id, format);
    expect({ format, complete: proof.complete, intact: proof.intact }).toEqual({
      format,
      complete: true,
      intact: 1,
    });
  }
});
