const ways = [
  "drip",
  "drip-missing",
  "drip-file",
  "early",
  "slow-redirects",
  "deep",
  "deep-lists",
  "attributes",
  "one-word",
  "comments",
];

/** Runs over hosts that drip, redirect without end, and give pages that are hard to read. */
export const hostileHosts = {
  name: "Forty hostile hosts, in ten ways each",
  async run({ newAuthor, short }) {
    const [author, other] = [await newAuthor(), await newAuthor()];
    const linked = (addresses) =>
      `# T\n\n${addresses.map((address, i) => `[w${i}](${address}) `).join("")}\n`;
    const hostile = await author.bringIn(
      linked(
        Array.from({ length: 40 }, (_, i) => ways.map((way) => `http://c${i}.hostile.test/${way}`)).flat(),
      ),
    );
    const mine = await other.bringIn(
      linked(Array.from({ length: 20 }, (_, i) => `https://stone-${i + 1}.hesterley.test/`)),
    );
    const long = (await author.call("POST", `/books/${hostile}/reach`)).body;
    const began = performance.now();
    const run = (await other.call("POST", `/books/${mine}/reach`)).body;
    const { state } = await other.jobEnd(run.id);
    const took = Math.round(performance.now() - began);
    if (!short) await author.jobEnd(long.id, 15 * 60_000);
    await author.call("DELETE", `/jobs/${long.id}`);
    return {
      did: `400 pages; another author's run of 20 took ${took} ms`,
      statuses: [],
      wrong: state === "done" ? [] : [`The other author's run ended as ${state}.`],
    };
  },
};
