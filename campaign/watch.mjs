import { readFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";

const pause = 100;

/**
 * Watches what somebody else feels while something goes on: a well-behaved author's request every 100 ms, reading and
 * saving a chapter in turns, and the memory of the server's process.
 * @returns what the thing gave, the longest wait, the answers of 500, and the most memory
 */
export async function watched(author, bookId, serverPid, work) {
  const [chapter] = (await author.call("GET", `/books/${bookId}/chapters`)).body;
  const path = `/books/${bookId}/chapters/${chapter.id}`;
  const { body } = await author.call("GET", path);
  let { revision } = body;
  let longest = 0;
  let faults = 0;
  let most = 0;
  let isOver = false;
  const watching = (async () => {
    for (let i = 0; !isOver; i++) {
      const began = performance.now();
      const answer =
        i % 2 === 0
          ? await author.call("GET", path)
          : await author.call("PUT", path, { revision, document: body.document });
      longest = Math.max(longest, performance.now() - began);
      if (answer.status === 500) faults++;
      // Who has lost the thread while the server was away takes it up again.
      if (answer.body?.revision) revision = answer.body.revision;
      most = Math.max(most, residentBytes(serverPid()));
      await sleep(Math.max(0, pause - (performance.now() - began)));
    }
  })();
  const result = await work();
  isOver = true;
  await watching;
  return { result, longestMs: Math.round(longest), faults, megabytes: Math.round(most / 1024 / 1024) };
}

function residentBytes(pid) {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * 4096;
  } catch {
    // It has just ended, which some attacks are about.
    return 0;
  }
}
