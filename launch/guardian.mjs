import { readdirSync, readFileSync, rmSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";

// Ends whatever a run of the tests has started, however that run ended: it waits until its input is closed, which
// also happens when whoever wrote to it is killed. Every process of the run has the run's id in its environment.

const [id, folder] = process.argv.slice(2);
const mark = `VENNET_TEST_RUN=${id}\0`;
const patience = 10_000;

for (const name of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(name, () => undefined);
process.stdin.resume();
process.stdin.on("end", () => void sweep());
process.stdin.on("error", () => void sweep());

async function sweep() {
  signalAll("SIGTERM");
  for (const until = Date.now() + patience; ofRun().length > 0 && Date.now() < until;) await sleep(50);
  // What starts others while it ends is met at the next look.
  while (ofRun().length > 0) {
    signalAll("SIGKILL");
    await sleep(50);
  }
  rmSync(folder, { recursive: true, force: true });
  process.exit(0);
}

function signalAll(name) {
  for (const pid of ofRun()) {
    try {
      process.kill(pid, name);
    } catch (error) {
      if (error.code !== "ESRCH") throw error;
    }
  }
}

/** The processes of the run that have not ended. */
function ofRun() {
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        return `${readFileSync(`/proc/${pid}/environ`, "utf8")}\0`.includes(mark) && !isZombie(pid);
      } catch {
        // It has ended, or is somebody else's.
        return false;
      }
    });
}

function isZombie(pid) {
  return /^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, "utf8"));
}
