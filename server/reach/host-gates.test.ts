import { expect, test } from "@jest/globals";
import { Settings } from "../settings.ts";
import { HostGates, type Clock } from "./host-gates.ts";

const gates = (environment: Record<string, string>, clock?: Clock) =>
  new HostGates(new Settings({ REACH_GAP_MS: "0", ...environment }), clock);
const never = new AbortController().signal;
/** Questions begin one a turn, and no test asks as many. */
const turns = 64;
/** Until all that can go on has gone on. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < turns; turn++) await new Promise((resolve) => setImmediate(resolve));
}

/** A clock that goes on when it is told to. */
function clockByHand(): Clock & { goOn: (ms: number) => Promise<void> } {
  let time = 0;
  const sleepers = new Set<{ until: number; wake: () => void }>();
  return {
    now: () => time,
    sleep: (ms) =>
      new Promise((resolve) => {
        const sleeper = { until: time + ms, wake: () => (sleepers.delete(sleeper), resolve()) };
        sleepers.add(sleeper);
      }),
    goOn: async (ms) => {
      await settled();
      for (const end = time + ms; time < end;) {
        time++;
        for (const { until, wake } of [...sleepers]) if (until <= time) wake();
        await settled();
      }
    },
  };
}

test("two questions to a host are under way at once, and others wait in their order", async () => {
  const gate = gates({});
  const entered: number[] = [];
  const leaves: (() => void)[] = [];
  for (let i = 0; i < 4; i++)
    void gate.enter("tides.example", "book", never).then((leave) => {
      entered.push(i);
      leaves.push(leave);
    });
  await settled();
  expect(entered).toEqual([0, 1]);
  leaves[0]!();
  // Leaving twice frees nobody else's place.
  leaves[0]!();
  await settled();
  expect(entered).toEqual([0, 1, 2]);
  // Another host has a gate of its own.
  await gate.enter("ferry.example", "book", never);
});

test("so many are under way in all as the server is set to", async () => {
  const gate = gates({ REACH_CONCURRENCY: "3" });
  let inside = 0;
  // Beyond a book's share there are no more than these.
  for (let i = 0; i < 12; i++) void gate.enter(`h${i}.example`, "book", never).then(() => inside++);
  await settled();
  expect(inside).toBe(8);
});

test("a book has its share at once while others hold all, and a free place goes to who holds the fewest", async () => {
  const gate = gates({ REACH_CONCURRENCY: "20" });
  const entered: string[] = [];
  const leaves: (() => void)[] = [];
  const enter = (host: string, book: string): void =>
    void gate.enter(host, book, never).then((leave) => {
      entered.push(book);
      leaves.push(leave);
    });
  for (let i = 0; i < 40; i++) enter(`drip-${i}.example`, "hostile");
  await settled();
  expect(entered.length).toBe(20);
  for (let i = 0; i < 9; i++) enter(`tides-${i}.example`, "mine");
  await settled();
  expect(entered.filter((book) => book === "mine").length).toBe(8);
  // Of the places that come free, eight are above the number; the ninth goes to the book that holds fewer.
  for (let i = 0; i < 9; i++) leaves[i]!();
  await settled();
  expect(entered.filter((book) => book === "mine").length).toBe(9);
  expect(entered.length).toBe(29);
});

test("the gap lies between the starts, and a rest that a host asks for holds for who waits already", async () => {
  const clock = clockByHand();
  const gate = gates({ REACH_GAP_MS: "60" }, clock);
  const at: number[] = [];
  const ask = async (): Promise<void> => {
    const leave = await gate.enter("tides.example", "book", never);
    at.push(clock.now());
    leave();
  };
  const first = Promise.all([ask(), ask(), ask()]);
  await clock.goOn(120);
  await first;
  expect(at).toEqual([0, 60, 120]);
  const waiting = ask();
  await settled();
  gate.rest("tides.example", 300);
  await clock.goOn(300);
  await waiting;
  expect(at[3]).toBe(420);
});

/** All that a book may have at once is taken, and two wait for a place past their turns at one host. */
async function waitingForPlaces() {
  const clock = clockByHand();
  const gate = gates({ REACH_GAP_MS: "100", REACH_CONCURRENCY: "1" }, clock);
  const taken = await Promise.all(
    Array.from({ length: 8 }, (_, i) => gate.enter(`h${i}.example`, "book", never)),
  );
  const at: number[] = [];
  const ask = async (): Promise<void> => {
    (await gate.enter("tides.example", "book", never))();
    at.push(clock.now());
  };
  const asked = Promise.all([ask(), ask()]);
  await clock.goOn(500);
  expect(at).toEqual([]);
  return { clock, gate, at, asked, leaveAll: () => taken.forEach((leave) => leave()) };
}

test("who waited for a place past its turn begins at once, and the gap is kept after it", async () => {
  const { clock, at, asked, leaveAll } = await waitingForPlaces();
  leaveAll();
  await clock.goOn(200);
  await asked;
  expect(at).toEqual([500, 600]);
});

test("of one book's hosts every other free place goes to the one of which the most is left, the rest in turn", async () => {
  const gate = gates({ REACH_CONCURRENCY: "1" });
  const taken = await Promise.all(
    Array.from({ length: 8 }, (_, i) => gate.enter(`h${i}.example`, "book", never)),
  );
  const entered: string[] = [];
  const lefts = { few: 2, some: 30, most: 500, many: 200, single: 1 };
  for (const [host, left] of Object.entries(lefts)) {
    void gate.enter(`${host}.example`, "book", never, left).then(() => entered.push(host));
    await settled();
  }
  for (const leave of taken.slice(0, 5)) {
    leave();
    await settled();
  }
  expect(entered).toEqual(["most", "few", "many", "some", "single"]);
});

test("a rest that a host asks for holds also for who waits for a turn in its place", async () => {
  const { clock, gate, at, asked, leaveAll } = await waitingForPlaces();
  leaveAll();
  // One has been asked; the other has its place, and waits for its turn.
  await clock.goOn(50);
  expect(at).toEqual([500]);
  gate.rest("tides.example", 1_000);
  await clock.goOn(1_100);
  await asked;
  expect(at[1]).toBeGreaterThanOrEqual(1_550);
});

test("who gives up while waiting takes no place, and the next one gets it", async () => {
  const gate = gates({ REACH_LANES: "1" });
  const leave = await gate.enter("tides.example", "book", never);
  const impatient = new AbortController();
  const given = gate.enter("tides.example", "book", impatient.signal);
  const next = gate.enter("tides.example", "book", never);
  impatient.abort(new Error("Cancelled."));
  await expect(given).rejects.toThrow("Cancelled.");
  leave();
  (await next)();
  await expect(gate.enter("tides.example", "book", impatient.signal)).rejects.toThrow("Cancelled.");
  (await gate.enter("tides.example", "book", never))();
});
