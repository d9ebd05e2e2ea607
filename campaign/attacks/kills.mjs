import { setTimeout as sleep } from "node:timers/promises";
import { createConnection } from "mysql2/promise";

/** Ends the server, or the database, at any moment while authors write, import, export and ask; again and again. */
export const kills = {
  name: "Kills of server and database under load",
  // What she waits for is the start of what was ended.
  isAway: true,
  async run({ newAuthor, short, kill, isWell, environment, orphans }) {
    const rounds = short ? 3 : 100;
    const wrong = [];
    let acknowledged = 0;
    let jobs = 0;
    const writers = await Promise.all(
      Array.from({ length: 3 }, async () => {
        const author = await newAuthor();
        const bookId = await author.bringIn(
          "# T\n\n[a](https://tides.hesterley.example/) [b](https://stone-1.hesterley.test/).\n",
        );
        return { author, bookId, last: null };
      }),
    );
    for (let round = 0; round < rounds; round++) {
      let isOver = false;
      const begun = [];
      const writing = writers.map(async (writer, w) => {
        for (let i = 0; !isOver; i++) {
          const title = `Round ${round}, ${i}`;
          const answer = await writer.author.call("PATCH", `/books/${writer.bookId}`, { title });
          if (answer.status === 200) {
            writer.last = title;
            // What was sent after it without an answer may be there too.
            writer.unsure = new Set();
            acknowledged++;
          } else writer.unsure?.add(title);
          if (i % 20 === 10) {
            const path = w === 0 ? "reach" : "exports";
            const job = await writer.author.call(
              "POST",
              `/books/${writer.bookId}/${path}`,
              w === 0 ? {} : { format: w === 1 ? "pdf" : "epub" },
            );
            if (job.status === 201 || job.status === 202)
              begun.push({ author: writer.author, id: job.body.id });
          }
        }
      });
      await sleep(300 + ((round * 137) % 900));
      await kill(round % 2 === 0 ? "server" : "database");
      await isWell();
      await sleep(200);
      isOver = true;
      await Promise.all(writing);
      for (const { author, bookId, last, unsure = new Set() } of writers) {
        const { body } = await author.call("GET", `/books/${bookId}`);
        if (last !== null && body.title !== last && !unsure.has(body.title))
          wrong.push(`round ${round}: “${last}” was acknowledged, “${body.title}” is there`);
      }
      for (const { author, id } of begun) {
        const { state, message } = await author.jobEnd(id);
        jobs++;
        if (state !== "done" && !/ended too early/.test(message))
          wrong.push(`round ${round}: a job is ${state}: ${message}`);
      }
      for (const fault of await tablesWithFaults(environment().DATABASE_URL))
        wrong.push(`round ${round}: ${fault}`);
    }
    const left = await orphans();
    wrong.push(...left.map((one) => `orphan: ${one}`));
    return { did: `${rounds} kills, ${acknowledged} acknowledged writes, ${jobs} jobs`, statuses: [], wrong };
  },
};

/** What MariaDB itself finds wrong in its tables (CHECK TABLE). */
async function tablesWithFaults(url) {
  const connection = await createConnection(url);
  try {
    const [tables] = await connection.query("SHOW TABLES");
    const names = tables.map((row) => `\`${Object.values(row)[0]}\``).join(", ");
    const [told] = await connection.query(`CHECK TABLE ${names}`);
    return told
      .filter(({ Msg_text: text }) => text !== "OK")
      .map(({ Table: table, Msg_text: text }) => `${table}: ${text}`);
  } finally {
    await connection.end();
  }
}
