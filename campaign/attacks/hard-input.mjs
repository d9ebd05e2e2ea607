const lists = (depth) => Array.from({ length: depth }, (_, i) => `${"  ".repeat(i)}- x`).join("\n");

/** Manuscripts that cost a reader or a typesetter far more than their size. */
export const hardInput = {
  name: "Deep, endless and tangled manuscripts, exported",
  async run({ newAuthor, short }) {
    const author = await newAuthor();
    const texts = {
      quotes: ">".repeat(50_000),
      lists: lists(41),
      "forty lists": lists(40),
      divs: `x\n\n${"<div>".repeat(3_000)}`,
      brackets: "[".repeat(20_000),
      "one word": `# T\n\n${"w".repeat(200_000)}`,
      "long words": `# T\n\n${`${"w".repeat(4_000)} `.repeat(20)}`,
      links: `# T\n\n${"[a](https://a.example/) ".repeat(short ? 2_000 : 20_000)}`,
      ...(short
        ? {}
        : { emphasis: `${"*a **b ".repeat(2_000)}${"c** d*".repeat(2_000)}`, notes: notes(3_000) }),
    };
    const wrong = [];
    const statuses = [];
    const ended = {};
    await Promise.all(
      Object.entries(texts).map(async ([what, text]) => {
        const begun = await inTurn(() => author.beginImport(text));
        statuses.push(begun.status);
        const arrived = await author.jobEnd(begun.body.id);
        ended[what] = arrived.state;
        if (/Something went wrong/.test(arrived.message) || arrived.state === "never ended")
          wrong.push(`${what}, brought in: ${arrived.state}, ${arrived.message}`);
        if (arrived.state !== "done") return;
        const { book } = (await author.call("GET", `/jobs/${begun.body.id}/import`)).body;
        const asked = await author.call("POST", `/books/${book.id}/exports`, { format: "pdf" });
        statuses.push(asked.status);
        const exported = await author.jobEnd(asked.body.id, 660_000);
        if (/Something went wrong/.test(exported.message) || exported.state === "never ended")
          wrong.push(`${what}, exported: ${exported.state}, ${exported.message}`);
      }),
    );
    return { did: `${Object.keys(texts).length} manuscripts`, statuses, wrong };
  },
};

let last = Promise.resolve();

/** One after the other: an account has few uploads at once. */
function inTurn(work) {
  const next = last.then(work);
  last = next.catch(() => undefined);
  return next;
}

function notes(count) {
  return Array.from({ length: count }, (_, i) => `[^${i}] x\n\n[^${i}]: n\n\n`).join("");
}
