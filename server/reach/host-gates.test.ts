import { expect, test } from "@jest/globals";
import { Settings } from "../settings.ts";
import { HostGates } from "./host-gates.ts";

const gates = (environment: Record<string, string>) =>
  new HostGates(new Settings({ REACH_GAP_MS: "0", ...environment }));
const never = new AbortController().signal;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test("two questions to a host are under way at once, and others wait in their order", async () => {
  const gate = gates({});
  const entered: number[] = [];
  const leaves: (() => void)[] = [];
  for (let i = 0; i < 4; i++)
    void gate.enter("tides.example", never).then((leave) => {
      entered.push(i);
      leaves.push(leave);
    });
  await pause(20);
  expect(entered).toEqual([0, 1]);
  leaves[0]!();
  // Leaving twice frees nobody else's place.
  leaves[0]!();
  await pause(20);
  expect(entered).toEqual([0, 1, 2]);
  // Another host has a gate of its own.
  await gate.enter("ferry.example", never);
});

test("so many are under way in all as the server is set to", async () => {
  const gate = gates({ REACH_CONCURRENCY: "3" });
  let inside = 0;
  for (let i = 0; i < 5; i++) void gate.enter(`h${i}.example`, never).then(() => inside++);
  await pause(20);
  expect(inside).toBe(3);
});

test("the gap lies between the starts, and a rest that a host asks for holds for who waits already", async () => {
  const gate = gates({ REACH_GAP_MS: "60" });
  const begun = performance.now();
  const at: number[] = [];
  const ask = async (): Promise<void> => {
    const leave = await gate.enter("tides.example", never);
    at.push(performance.now() - begun);
    leave();
  };
  await Promise.all([ask(), ask(), ask()]);
  expect(at[1]! - at[0]!).toBeGreaterThan(50);
  expect(at[2]! - at[1]!).toBeGreaterThan(50);
  const waiting = ask();
  gate.rest("tides.example", 300);
  await waiting;
  expect(at[3]! - at[2]!).toBeGreaterThan(280);
});

test("who gives up while waiting takes no place, and the next one gets it", async () => {
  const gate = gates({ REACH_LANES: "1" });
  const leave = await gate.enter("tides.example", never);
  const impatient = new AbortController();
  const given = gate.enter("tides.example", impatient.signal);
  const next = gate.enter("tides.example", never);
  impatient.abort(new Error("Cancelled."));
  await expect(given).rejects.toThrow("Cancelled.");
  leave();
  (await next)();
  await expect(gate.enter("tides.example", impatient.signal)).rejects.toThrow("Cancelled.");
  (await gate.enter("tides.example", never))();
});
