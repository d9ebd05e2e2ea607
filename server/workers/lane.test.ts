import { afterEach, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { EventEmitter, once } from "node:events";
import { readFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";
import { bookOf } from "@vennet/core/test/sample-book";
import { exportOptions } from "@vennet/core/publish/formats/formats";
import { nothingKnown } from "@vennet/core/checks/surroundings";
import { Lane } from "./lane.ts";
import { plainBook } from "../test/plain-book.ts";

const book = bookOf("# T\n\n[here](https://tides.example/)");
const check = { book: plainBook(book), known: nothingKnown };
/** It takes some seconds to set. */
const longBook = bookOf(`# T\n\n${"Word [link](https://a.example/) ".repeat(20)}\n\n`.repeat(150));
const lanes: Lane[] = [];
const newLane = (processes: number, limits = { minutes: 10, megabytes: 4096 }): Lane => {
  const lane = new Lane(processes, limits);
  lanes.push(lane);
  return lane;
};
afterEach(async () => {
  await Promise.all(lanes.splice(0).map((lane) => lane.end()));
});

/** The ids of the worker processes that this one has started. */
function workers(): number[] {
  const told = execFileSync("ps", ["-o", "pid=,args=", "--ppid", String(process.pid)], { encoding: "utf8" });
  return told
    .split("\n")
    .filter((line) => line.includes("worker-process.js"))
    .map((line) => Number(line.trim().split(" ")[0]));
}

const gone = async (pid: number): Promise<void> => {
  while (workers().includes(pid)) await sleep(20);
};

test("a process that is killed while it is idle costs nothing: the next task is done by another", async () => {
  const lane = newLane(1);
  expect(await lane.run("check", check)).toHaveLength(1);
  const [idle] = workers();
  process.kill(idle!, "SIGKILL");
  // Sent at once, while nobody here knows that it is gone; and again when everybody does.
  expect(await lane.run("check", check)).toHaveLength(1);
  await gone(idle!);
  expect(await lane.run("check", check)).toHaveLength(1);
});

test("a process that has long been gone is in the way of nothing: neither of a task nor of the end", async () => {
  const lane = newLane(1);
  const kill = async (): Promise<void> => {
    const [idle] = workers();
    process.kill(idle!, "SIGKILL");
    await gone(idle!);
  };
  await lane.run("check", check);
  await kill();
  expect(await lane.run("check", check)).toHaveLength(1);
  await kill();
  await lane.end();
  expect(workers()).toEqual([]);
});

test("a process that is killed at a task takes that task alone with it", async () => {
  const lane = newLane(1);
  const { chapters } = longBook;
  const begun = new EventEmitter();
  const long = lane.run(
    "exportBook",
    {
      book: plainBook({ ...book, chapters }),
      options: exportOptions({ format: "pdf" }),
      name: "walks.pdf",
      lastPages: null,
    },
    undefined,
    () => begun.emit("told"),
  );
  const next = lane.run("check", check);
  await once(begun, "told");
  process.kill(workers()[0]!, "SIGKILL");
  await expect(long).rejects.toMatchObject({ code: "worker-ended" });
  expect(await next).toHaveLength(1);
});

describe("a task", () => {
  test("that is cancelled ends its process; one that waits is not begun", async () => {
    const lane = newLane(1);
    await lane.run("check", check);
    const [pid] = workers();
    const { chapters } = longBook;
    const stop = new AbortController();
    const input = {
      book: plainBook({ ...book, chapters }),
      options: exportOptions({ format: "pdf" }),
      name: "walks.pdf",
      lastPages: null,
    };
    const begun = new Promise<void>((resolve) => {
      const told = lane.run("exportBook", input, stop.signal, () => resolve());
      void expect(told).rejects.toMatchObject({ name: "AbortError" });
    });
    await begun;
    const waiting = lane.run("check", check, stop.signal);
    stop.abort();
    await expect(waiting).rejects.toMatchObject({ name: "AbortError" });
    await gone(pid!);
    expect(await lane.run("check", check)).toHaveLength(1);
  });

  test("that fails as was foreseen keeps its code; what nobody foresaw says what it was", async () => {
    const lane = newLane(1);
    const file = { name: "walks.md", bytes: new Uint8Array([0xff, 0]) };
    const options = { fallbackTitle: "T", baseAddress: null, conventions: null, beside: [], fetched: {} };
    await expect(lane.run("importManuscript", { file, ...options })).rejects.toMatchObject({
      code: "format",
      field: "manuscript",
    });
    await expect(lane.run("check", { ...check, book: null as never })).rejects.toThrow(/TypeError/);
  });

  test("of the keyboard is not in the way of an export, however long that is", async () => {
    const [exports, checks] = [newLane(1), newLane(1)];
    const { chapters } = longBook;
    let isExported = false;
    const exporting = exports
      .run("exportBook", {
        book: plainBook({ ...book, chapters }),
        options: exportOptions({ format: "pdf" }),
        name: "walks.pdf",
        lastPages: null,
      })
      .then(() => (isExported = true));
    expect(await checks.run("check", check)).toHaveLength(1);
    expect(isExported).toBe(false);
    await exporting;
  });

  test("that takes more time or memory than it may is ended with word of it, and the next is done", async () => {
    const { chapters } = longBook;
    const exported = {
      book: plainBook({ ...book, chapters }),
      options: exportOptions({ format: "pdf" }),
      name: "walks.pdf",
      lastPages: null,
    };
    const hasty = newLane(1, { minutes: 1 / 600, megabytes: 4096 });
    await expect(hasty.run("exportBook", exported)).rejects.toMatchObject({ code: "too-long" });
    const narrow = newLane(1, { minutes: 10, megabytes: 20 });
    await expect(narrow.run("exportBook", exported)).rejects.toMatchObject({ code: "too-much-memory" });
    const wide = newLane(1, { minutes: 10, megabytes: 1024 });
    expect(await wide.run("check", check)).toHaveLength(1);
  });
});

test("what a library leaves behind of a damaged file ends no process, and is no task's result", async () => {
  const lane = newLane(1);
  // A PDF in which an array does not end: no page can be read, and pdf.js rejects a promise that nobody was given.
  const bytes = new Uint8Array(readFileSync(new URL("stray-failure.pdf", import.meta.url)));
  const read = () => lane.run("readFinished", { format: "pdf", bytes: bytes.slice(), password: "" });
  const refused = { code: "format", message: expect.stringContaining("no page that can be read") };
  await expect(read()).rejects.toMatchObject(refused);
  const [first] = workers();
  await sleep(200);
  await expect(read()).rejects.toMatchObject(refused);
  expect(workers()).toEqual([first]);
});
