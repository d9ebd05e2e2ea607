import { setTimeout as sleep } from "node:timers/promises";

const firstPause = 500;
const longestPause = 30_000;
/** What ran for so long was well; the next pause is a short one again. */
const steadyAfter = 60_000;

/**
 * Starts a service, and starts it again whenever it ends by itself, after pauses that grow while it ends soon.
 * @param begin starts it, waits until it can be used, and gives its entry among the processes
 * @param longest the longest of the pauses, in milliseconds
 * @returns what `begin` gave the first time
 * @throws what `begin` throws the first time
 */
export async function keepRunning(processes, begin, longest = longestPause) {
  const first = await begin();
  void watch(processes, begin, first, longest);
  return first;
}

async function watch(processes, begin, first, longest) {
  let entry = first;
  let pause = firstPause;
  for (let since = Date.now(); ; since = Date.now()) {
    const { code, signal } = await entry.exited;
    if (processes.isEnding) return;
    if (Date.now() - since > steadyAfter) pause = firstPause;
    console.error(`Ended unexpectedly (${signal ?? `exit code ${code}`}): ${entry.name}.`);
    for (let isBack = false; !isBack;) {
      console.error(`It is started again in ${pause / 1000} s.`);
      await sleep(pause);
      pause = Math.min(pause * 2, longest);
      if (processes.isEnding) return;
      try {
        entry = await begin();
        isBack = true;
      } catch (error) {
        if (processes.isEnding) return;
        console.error(error.message);
      }
    }
    console.error(`Running again: ${entry.name}.`);
  }
}
