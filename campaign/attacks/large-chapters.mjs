/** One author's chapter with as many links as come in as one chapter, in all that is done with a chapter. */
export const largeChapters = {
  name: "A chapter of 12,000 links, saved, changed, undone, checked, set",
  async run({ newAuthor, short }) {
    const author = await newAuthor();
    const count = short ? 2_000 : 12_000;
    const wrong = [];
    const statuses = [];
    const asked = async (method, path, body, wanted = [200, 201, 202]) => {
      const answer = await author.call(method, path, body);
      statuses.push(answer.status);
      if (!wanted.includes(answer.status))
        wrong.push(`${method} ${path}: ${answer.status} ${answer.text.slice(0, 200)}`);
      return answer.body;
    };
    const bookId = await author.bringIn(
      `# T\n\n${"[low water](https://a.example/) at nine.\n\n".repeat(count / 3)}${"[b](https://b.example/) ".repeat((count / 3) * 2)}`,
    );
    const book = `/books/${bookId}`;
    const [{ id }] = await asked("GET", `${book}/chapters`);
    for (let round = 0; round < (short ? 1 : 3); round++) {
      const { revision, document } = await asked("GET", `${book}/chapters/${id}`);
      await asked("PUT", `${book}/chapters/${id}`, { revision, document });
      await asked("PATCH", `${book}/chapters/${id}`, { title: `T ${round}` });
      await asked("GET", `${book}/links?limit=200`);
      const all = { matching: {}, edit: { kind: "describe", description: `Round ${round}` } };
      await asked("POST", `${book}/links/edits/preview`, all);
      const step = await asked("POST", `${book}/links/edits`, all);
      await asked("POST", `${book}/steps/${step?.id}/undo`);
      await asked("POST", `${book}/links/search`, { phrase: "nine" });
      await asked("GET", `${book}/findings`);
      await asked("POST", `${book}/exports/preflight`, { format: "pdf" });
      await asked("POST", `${book}/exports/chapters/${id}/pages`, { document });
    }
    for (const format of ["epub", "pdf"]) {
      const job = await asked("POST", `${book}/exports`, { format });
      const { state, message } = await author.jobEnd(job.id, 660_000);
      if (state !== "done") wrong.push(`${format}: ${state}, ${message}`);
      await asked("GET", `${book}/exports`);
    }
    return { did: `${count.toLocaleString("en")} links`, statuses, wrong };
  },
};
