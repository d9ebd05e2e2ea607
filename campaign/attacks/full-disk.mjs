import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, Processes } from "../../launch/processes.mjs";
import { startServices } from "../../launch/services.mjs";
import { Author } from "../author.mjs";

const megabyte = 1024 * 1024;

/** A Vennet of its own on a small disk in memory, which an author fills, and then somebody else. */
export const fullDisk = {
  name: "A full disk",
  // It is another Vennet that is attacked, beside hers on one machine.
  isAway: true,
  async run({ short }) {
    const disk = mkdtempSync(join(tmpdir(), "vennet-small-disk-"));
    if (spawnSync("mount", ["-t", "tmpfs", "-o", "size=400m", "tmpfs", disk]).status !== 0) {
      rmSync(disk, { recursive: true });
      return { did: "nothing: mounting is not allowed here", statuses: [] };
    }
    const processes = new Processes();
    const wrong = [];
    const statuses = [];
    try {
      const { address } = await startServices(processes, disk, await freePort(), {
        DISK_RESERVE_MB: "60",
        SIGN_UPS_PER_HOUR: "1000000",
        LOG_LEVEL: "fatal",
        TMPDIR: disk,
      });
      const author = await new Author(address).signUp();
      const bookId = await author.bringIn("# T\n\nLow water.\n");
      let refused = null;
      // Down to the reserve, in smaller and smaller steps.
      for (const size of [10 * megabyte, megabyte, megabyte / 16]) {
        refused = null;
        for (let i = 0; i < 100 && !refused; i++) {
          const form = new FormData();
          form.set("file", new Blob([Buffer.alloc(size, i)]), `${i}.bin`);
          const answer = await author.call("POST", `/books/${bookId}/files`, form);
          statuses.push(answer.status);
          if (answer.status !== 201) refused = answer;
        }
      }
      if (refused?.status !== 507) wrong.push(`A full disk was told as ${refused?.status}: ${refused?.text}`);
      const save = (title) => author.call("PATCH", `/books/${bookId}`, { title });
      const saved = await save("Within the reserve");
      if (saved.status !== 200) wrong.push(`A word within the reserve was answered ${saved.status}.`);
      const exported = await author.call("POST", `/books/${bookId}/exports`, { format: "pdf" });
      if (exported.status !== 507) wrong.push(`An export without room was answered ${exported.status}.`);
      // Somebody else fills the disk to its end.
      const filler = join(disk, "filler");
      spawnSync("dd", ["if=/dev/zero", `of=${filler}`, "bs=1M"], { stdio: "ignore" });
      for (let i = 0; i < (short ? 20 : 200); i++) {
        const { status } = await save(`On a full disk ${i}`);
        statuses.push(status);
        if (![200, 503, 507].includes(status)) wrong.push(`A word on a full disk was answered ${status}.`);
      }
      rmSync(filler);
      writeFileSync(join(disk, "free-again"), "");
      let last = 0;
      for (let i = 0; i < 100 && last !== 200; i++) ({ status: last } = await save("Free again"));
      if (last !== 200) wrong.push(`With room again a word was answered ${last}.`);
    } finally {
      await processes.endAll();
      spawnSync("umount", ["-l", disk]);
      rmSync(disk, { recursive: true, force: true });
    }
    return { did: "a disk of 400 MB, filled twice", statuses, wrong };
  },
};
