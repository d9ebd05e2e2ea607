import { beforeEach, expect, test } from "@jest/globals";
import { forgetDone, tellDone, telling, tellText, turn, useHistory, type Undoable } from "./history";

const here = { bookId: "b", chapterId: "one" };
const typed = (undoDepth: number) => tellText(here, { undoDepth, redoDepth: 0, isTyped: true });
let did: string[];
const action = (message: string, more: Partial<Undoable> = {}): Undoable => ({
  bookId: "b",
  message,
  undo: async () => void did.push(`undo ${message}`),
  redo: async () => did.push(`redo ${message}`),
  ...more,
});

beforeEach(() => {
  did = [];
  let [undoDepth, redoDepth] = [0, 0];
  const editor = {
    ...here,
    undo: () => {
      did.push("undo text");
      [undoDepth, redoDepth] = [depthOf("done") - 1, depthOf("undone") + 1];
      tellText(here, { undoDepth, redoDepth, isTyped: false });
    },
    redo: () => {
      did.push("redo text");
      [undoDepth, redoDepth] = [depthOf("done") + 1, depthOf("undone") - 1];
      tellText(here, { undoDepth, redoDepth, isTyped: false });
    },
  };
  useHistory.setState({ done: [], undone: [], editor });
});
const depthOf = (which: "done" | "undone"): number =>
  useHistory.getState()[which].filter(({ kind }) => kind === "text").length;

test("what was done is taken back from the last to the first, in the text and outside, and done again", async () => {
  typed(1);
  tellDone(action("moved a chapter"));
  typed(2);
  tellDone(action("renamed an anchor"));
  for (let i = 0; i < 5; i++) await turn("undo", "b");
  expect(did).toEqual(["undo renamed an anchor", "undo text", "undo moved a chapter", "undo text"]);
  expect(await turn("undo", "b")).toEqual({ kind: "nothing" });
  did = [];
  for (let i = 0; i < 5; i++) await turn("redo", "b");
  expect(did).toEqual(["redo text", "redo moved a chapter", "redo text", "redo renamed an anchor"]);
});

test("after something new nothing is done again", async () => {
  tellDone(action("moved a chapter"));
  await turn("undo", "b");
  typed(1);
  expect(await turn("redo", "b")).toEqual({ kind: "nothing" });
});

test("what cannot be done again is not; what fails to be taken back can be tried again", async () => {
  let fails = true;
  const once = action("linked every mention");
  delete once.redo;
  tellDone({
    ...once,
    undo: async () => {
      if (fails) throw new Error("The server is away.");
      return "4 links are as before.";
    },
  });
  await expect(turn("undo", "b")).rejects.toThrow("away");
  fails = false;
  expect(await turn("undo", "b")).toEqual({ kind: "action", said: "4 links are as before." });
  expect(await turn("redo", "b")).toEqual({ kind: "nothing" });
});

test("what is under way is taken back when it is done; what fails was never done", async () => {
  let end = (): void => undefined;
  const work = new Promise<void>((resolve) => (end = resolve));
  const told = telling(work, (made) =>
    action("renamed an anchor", { undo: () => made.then(() => did.push("undo it")) }),
  );
  const turned = turn("undo", "b");
  expect(did).toEqual([]);
  end();
  await Promise.all([told, turned]);
  expect(did).toEqual(["undo it"]);
  await expect(telling(Promise.reject(new Error("away")), () => action("moved"))).rejects.toThrow("away");
  expect(useHistory.getState().done).toEqual([]);
});

test("a change in another chapter is told with where it is", async () => {
  tellText({ bookId: "b", chapterId: "two" }, { undoDepth: 1, redoDepth: 0, isTyped: true });
  expect(await turn("undo", "b")).toMatchObject({ kind: "elsewhere", bookId: "b", chapterId: "two" });
  expect(useHistory.getState().done).toHaveLength(1);
});

test("another book has its own", async () => {
  tellDone(action("moved a chapter"));
  expect(await turn("undo", "c")).toEqual({ kind: "nothing" });
  expect(did).toEqual([]);
});

test("an editor that forgets its oldest changes has no more of them here; one that was taken back by its bar neither", () => {
  typed(3);
  const bar = action("deleted a chapter");
  tellDone(bar);
  typed(2);
  expect(useHistory.getState().done.map(({ kind }) => kind)).toEqual(["text", "text", "action"]);
  forgetDone(bar);
  expect(useHistory.getState().done.map(({ kind }) => kind)).toEqual(["text", "text"]);
});

test("what is done while something is done again comes after it, however long that takes", async () => {
  let end!: () => void;
  const slow = new Promise<void>((resolve) => (end = resolve));
  tellDone(action("moved a chapter", { redo: () => slow }));
  await turn("undo", "b");
  const again = turn("redo", "b");
  tellDone(action("renamed a chapter"));
  end();
  await again;
  did = [];
  await turn("undo", "b");
  await turn("undo", "b");
  expect(did).toEqual(["undo renamed a chapter", "undo moved a chapter"]);
});

test("what cannot be done again, or not be taken back, stays where it was", async () => {
  let fails = true;
  const mayFail = async (): Promise<void> => {
    if (fails) throw new Error("away");
  };
  tellDone(action("moved a chapter", { undo: mayFail, redo: mayFail }));
  await expect(turn("undo", "b")).rejects.toThrow("away");
  expect(useHistory.getState()).toMatchObject({ done: [{}], undone: [] });
  fails = false;
  await turn("undo", "b");
  fails = true;
  await expect(turn("redo", "b")).rejects.toThrow("away");
  expect(useHistory.getState()).toMatchObject({ done: [], undone: [{}] });
});
