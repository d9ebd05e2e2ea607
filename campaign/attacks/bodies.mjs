/** Bodies that cost the reader much more than the sender, sent by nobody and by an author. */
export const bodies = {
  name: "Bodies before a session, endless lists, deep objects",
  async run({ address, newAuthor, short }) {
    const author = await newAuthor();
    const bookId = await author.bringIn("# T\n\nLow water.\n");
    const [chapter] = (await author.call("GET", `/books/${bookId}/chapters`)).body;
    const list = (megabytes) => `[${"0,".repeat(megabytes * 500_000)}0]`;
    const deep = (levels) => `{"a":`.repeat(levels) + "1" + "}".repeat(levels);
    const many = (megabytes) => `{"name":"x","email":"a@b.example","password":${list(megabytes)}}`;
    const nobody = { call: (method, path, body) => callBare(address, method, path, body) };
    const seen = [];
    for (let round = 0; round < (short ? 2 : 10); round++)
      for (const [who, method, path, body] of [
        [nobody, "POST", "/session", list(1)],
        [nobody, "POST", "/session", list(24)],
        [nobody, "POST", "/accounts", many(1)],
        [nobody, "POST", "/password-links", deep(5_000)],
        [nobody, "POST", "/books/x/chapters", list(5)],
        [author, "POST", "/books", deep(10_000)],
        [author, "POST", `/books/${bookId}/chapters`, `{"title":"T","document":${deep(200_000)}}`],
        [
          author,
          "PUT",
          `/books/${bookId}/chapters/${chapter.id}`,
          `{"revision":1,"document":{"type":"doc","content":${list(2)}}}`,
        ],
        [author, "PUT", `/books/${bookId}/chapters/${chapter.id}`, list(60)],
        [
          author,
          "POST",
          `/books/${bookId}/links/edits`,
          `{"links":${list(0.9)},"edit":{"kind":"describe","description":"x"}}`,
        ],
      ])
        seen.push((await who.call(method, path, body)).status);
    return { did: `${seen.length} bodies`, statuses: seen };
  },
};

async function callBare(address, method, path, body) {
  try {
    const answer = await fetch(`${address}/api${path}`, {
      method,
      body,
      headers: { "content-type": "application/json" },
    });
    await answer.text();
    return { status: answer.status };
  } catch {
    // The server may close the connection of a body that it does not want.
    return { status: 0 };
  }
}
