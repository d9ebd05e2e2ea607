import { create } from "zustand";

/** Something done outside of a text that can be taken back. */
export interface Undoable {
  /** The book that it was done to. */
  bookId: string;
  message: string;
  /** Takes it back; words that it gives are said afterwards. What it throws is said too, and it can be tried again. */
  undo: () => Promise<unknown>;
  /** Does it again; left out where it cannot be. */
  redo?: () => Promise<unknown>;
}

/** One thing that the author did: a change of a chapter's text, which its editor knows, or something outside of it. */
export type Done =
  { kind: "text"; bookId: string; chapterId: string } | { kind: "action"; undoable: Undoable };

/** The editor that is open, as the history needs it. */
export interface OpenEditor {
  bookId: string;
  chapterId: string;
  undo: () => void;
  redo: () => void;
}

interface HistoryState {
  done: readonly Done[];
  undone: readonly Done[];
  editor: OpenEditor | null;
}

/** What the author did in this window, in its order, whatever it was, and what of it was taken back. */
export const useHistory = create<HistoryState>(() => ({ done: [], undone: [], editor: null }));

const { getState, setState } = useHistory;

/** Tells of something that was done outside of a text. */
export function tellDone(undoable: Undoable): void {
  setState({ done: [...getState().done, { kind: "action", undoable }], undone: [] });
}

/**
 * Tells of something that is being done, so that undo pressed before its answer takes that back and nothing older.
 * @throws what the work throws; nothing was done then
 */
export async function telling(
  work: Promise<unknown>,
  describe: (made: Promise<unknown>) => Undoable,
  tell = tellDone,
): Promise<void> {
  const undoable = describe(work);
  tell(undoable);
  try {
    await work;
  } catch (error) {
    forgetDone(undoable);
    throw error;
  }
}

/** Forgets something that was done: it was taken back in another way. */
export function forgetDone(undoable: Undoable): void {
  const others = (all: readonly Done[]): Done[] =>
    all.filter((one) => one.kind === "text" || one.undoable !== undoable);
  setState({ done: others(getState().done), undone: others(getState().undone) });
}

/**
 * Brings the history of the window to what an editor can take back and do again now.
 * @param isTyped whether its text was changed anew, and not by taking back or doing again
 */
export function tellText(
  { bookId, chapterId }: { bookId: string; chapterId: string },
  { undoDepth, redoDepth, isTyped }: { undoDepth: number; redoDepth: number; isTyped: boolean },
): void {
  const isOwn = (one: Done): boolean => one.kind === "text" && one.chapterId === chapterId;
  const withDepth = (all: readonly Done[], depth: number): Done[] => {
    const count = all.filter(isOwn).length;
    const more = Array.from({ length: Math.max(0, depth - count) }, (): Done => ({
      kind: "text",
      bookId,
      chapterId,
    }));
    let tooMany = count - depth;
    // The oldest are forgotten when there are too many; what was taken back is the newest.
    const left = isTyped
      ? all.filter((one) => !isOwn(one) || tooMany-- <= 0)
      : all
          .toReversed()
          .filter((one) => !isOwn(one) || tooMany-- <= 0)
          .toReversed();
    return [...left, ...more];
  };
  const { done, undone } = getState();
  setState({
    done: withDepth(done, undoDepth),
    undone: isTyped ? [] : withDepth(undone, redoDepth),
  });
}

/** What came of a press of undo or redo. */
export type Turned =
  | { kind: "nothing" }
  | { kind: "text" }
  /** The change is in the text of another chapter, which has to be opened first. */
  | { kind: "elsewhere"; bookId: string; chapterId: string }
  | { kind: "action"; said: string };

/**
 * Takes back the last thing that was done to a book, or does again what was taken back last.
 * @throws what the action throws; it can be tried again then
 */
export async function turn(direction: "undo" | "redo", bookId: string): Promise<Turned> {
  const { editor } = getState();
  const last = nextTurn(getState(), direction, bookId);
  if (!last) return { kind: "nothing" };
  if (last.kind === "text") {
    if (editor?.chapterId !== last.chapterId) return { ...last, kind: "elsewhere" };
    editor[direction]();
    return { kind: "text" };
  }
  // It changes sides before it is done: what is done meanwhile comes after it.
  const { undoable } = last;
  forgetDone(undoable);
  const { done, undone } = getState();
  if (direction === "redo") setState({ done: [...done, last] });
  else if (undoable.redo) setState({ undone: [...undone, last] });
  try {
    if (direction === "redo") {
      await undoable.redo!();
      return { kind: "action", said: undoable.message };
    }
    const said = await undoable.undo();
    return { kind: "action", said: typeof said === "string" ? said : `Undone: ${undoable.message}` };
  } catch (error) {
    forgetDone(undoable);
    const now = getState();
    if (direction === "redo") setState({ undone: [...now.undone, last] });
    else setState({ done: [...now.done, last] });
    throw error;
  }
}

/** What undo or redo would turn in a book; undefined for nothing. */
export function nextTurn(
  { done, undone }: HistoryState,
  direction: "undo" | "redo",
  bookId: string,
): Done | undefined {
  return (direction === "undo" ? done : undone).findLast(
    (one) => (one.kind === "text" ? one.bookId : one.undoable.bookId) === bookId,
  );
}
