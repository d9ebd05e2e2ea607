import { expect, test } from "@jest/globals";
import { Shown } from "./shown";

test("who waits is told when the reader shows what was asked for, and not before", async () => {
  const shown = new Shown<string>();
  shown.tell("1", "page one");
  expect(await shown.of("1")).toBe("page one");
  let came: string | null = null;
  const waiting = shown.of("2").then((view) => (came = view));
  await new Promise((resolve) => setTimeout(resolve, 5));
  shown.tell("3", "page three");
  await Promise.resolve();
  expect(came).toBeNull();
  shown.tell("2", "page two");
  await waiting;
  expect(came).toBe("page two");
});

test("what has gone from view is not what is shown", async () => {
  const shown = new Shown<string>();
  shown.tell("1", "before");
  shown.forget();
  const waiting = shown.of("1");
  await new Promise((resolve) => setTimeout(resolve, 5));
  shown.tell("1", "after");
  expect(await waiting).toBe("after");
});
