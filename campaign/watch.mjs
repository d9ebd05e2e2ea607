import { once } from "node:events";
import { readFileSync } from "node:fs";
import { Worker } from "node:worker_threads";

const everyMs = 100;

/**
 * Watches what somebody else feels while something goes on: a well-behaved author's request every 100 ms, reading and
 * saving a chapter in turns, and the memory of the server's process.
 * @returns what the thing gave, the longest wait, the answers of 500, and the most memory
 */
export async function watched({ address, cookie }, bookId, serverPid, work) {
  const watching = new Worker(new URL("watching.mjs", import.meta.url), {
    workerData: { address, cookie, bookId },
  });
  await once(watching, "message");
  let most = 0;
  const measuring = setInterval(() => (most = Math.max(most, residentBytes(serverPid()))), everyMs);
  try {
    const result = await work();
    const told = once(watching, "message");
    watching.postMessage("over");
    return { result, ...(await told)[0], megabytes: Math.round(most / 1024 / 1024) };
  } finally {
    clearInterval(measuring);
    await watching.terminate();
  }
}

function residentBytes(pid) {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * 4096;
  } catch {
    // It has just ended, which some attacks are about.
    return 0;
  }
}
