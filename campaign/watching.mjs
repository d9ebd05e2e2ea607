import { setTimeout as sleep } from "node:timers/promises";
import { parentPort, workerData } from "node:worker_threads";
import { Author } from "./author.mjs";

// In a thread of its own: what an attack costs the attacker is no wait of hers.

const pause = 100;
const { address, cookie, bookId } = workerData;
const author = Object.assign(new Author(address), { cookie });
let isOver = false;
parentPort.once("message", () => (isOver = true));

const [chapter] = (await author.call("GET", `/books/${bookId}/chapters`)).body;
const path = `/books/${bookId}/chapters/${chapter.id}`;
const { body } = await author.call("GET", path);
let { revision } = body;
let longestMs = 0;
let faults = 0;
parentPort.postMessage("ready");
for (let i = 0; !isOver; i++) {
  const began = performance.now();
  const answer =
    i % 2 === 0
      ? await author.call("GET", path)
      : await author.call("PUT", path, { revision, document: body.document });
  longestMs = Math.max(longestMs, performance.now() - began);
  if (answer.status === 500) faults++;
  // Who has lost the thread while the server was away takes it up again.
  if (answer.body?.revision) revision = answer.body.revision;
  await sleep(Math.max(0, pause - (performance.now() - began)));
}
parentPort.postMessage({ longestMs: Math.round(longestMs), faults });
