import { expect, test } from "@jest/globals";
import { LocalQueue } from "./local-queue.ts";
import type { Piece } from "./work-queue.ts";

const piece = (jobId: string, part: string, priority: number, owner = jobId): Piece => ({
  jobId,
  part,
  priority,
  owner,
});
const settled = () => new Promise((resolve) => setImmediate(resolve));

test("books take turns: the first host of each run comes before the second of any", async () => {
  const queue = new LocalQueue(1, 0, 1);
  const done: string[] = [];
  await queue.add(["a", "b", "c"].map((host, i) => piece("long", host, i)));
  await queue.add(["x", "y"].map((host, i) => piece("short", host, i)));
  queue.start(async ({ jobId, part }) => void done.push(`${jobId} ${part}`));
  for (let i = 0; i < 20; i++) await settled();
  expect(done).toEqual(["long a", "short x", "long b", "short y", "long c"]);
});

test("so many pieces are under way as it may do, and none twice while it waits or runs", async () => {
  const queue = new LocalQueue(2, 0, 2);
  const running = new Map<string, () => void>();
  let most = 0;
  queue.start(
    ({ part }) =>
      new Promise((resolve) => {
        running.set(part, resolve);
        most = Math.max(most, running.size);
      }),
  );
  const all = ["a", "b", "c"].map((part) => piece("job", part, 0));
  await queue.add(all);
  await queue.add(all);
  expect([...running.keys()]).toEqual(["a", "b"]);
  const finish = async (part: string): Promise<void> => {
    running.get(part)!();
    running.delete(part);
    await settled();
  };
  await finish("a");
  expect([...running.keys()]).toEqual(["b", "c"]);
  // Done once, it may be added again.
  await queue.add([piece("job", "a", 0)]);
  await finish("b");
  expect([...running.keys()]).toEqual(["c", "a"]);
  expect(most).toBe(2);
});

test("closed, it hands out nothing more and waits for what is under way", async () => {
  const queue = new LocalQueue(1, 0, 1);
  const done: string[] = [];
  let finish = (): void => undefined;
  queue.start(async ({ part }) => {
    await new Promise<void>((resolve) => (finish = resolve));
    done.push(part);
  });
  await queue.add([piece("job", "a", 0), piece("job", "b", 0)]);
  const closed = queue.close();
  finish();
  await closed;
  expect(done).toEqual(["a"]);
});

test("an owner has its share at once, whatever others have under way, and no more than that", async () => {
  const queue = new LocalQueue(2, 1, 2);
  const running: string[] = [];
  queue.start(({ part }) => {
    running.push(part);
    return new Promise(() => undefined);
  });
  await queue.add(["a", "b", "c"].map((part) => piece("long", part, 0)));
  expect(running).toEqual(["a", "b"]);
  await queue.add(["x", "y"].map((part) => piece("short", part, 7)));
  expect(running).toEqual(["a", "b", "x"]);
});

test("an owner has no more under way than one may, though there is room", async () => {
  const queue = new LocalQueue(4, 1, 2);
  const running: string[] = [];
  queue.start(({ part }) => {
    running.push(part);
    return new Promise(() => undefined);
  });
  await queue.add(["a", "b", "c"].map((part) => piece("long", part, 0)));
  expect(running).toEqual(["a", "b"]);
});
