import { readChapter, writeChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";
import { mergeTexts } from "@vennet/core/manuscript/merge-texts";
import type { Node } from "prosemirror-model";
import { createStore } from "zustand";
import {
  answerOf,
  api,
  writtenTexts,
  type ApiError,
  type Chapter,
  type ChapterSaved,
} from "../../api/client";
import { dropDraft, keepDraft } from "./drafts";

/** How a chapter's text stands with the server. */
export type SaveStatus =
  | { kind: "saved" }
  | { kind: "unsaved" }
  | { kind: "saving" }
  /** The server is away; the text is kept in this browser and sent when it is back. */
  | { kind: "away" }
  /** Somebody else has saved the chapter since. */
  | { kind: "conflict"; mine: ChapterJson; theirs: Chapter }
  | { kind: "refused"; message: string };

/** A text that is open to be written. */
interface OpenText {
  text: () => Node;
  /** Shows another text in its place, where cursor and undo stay. */
  show: (text: Node) => void;
}

const pauseBeforeDraft = 200;
const pauseBeforeSave = 1_000;
const retryAfter = 3_000;

/**
 * Saves one chapter while it is written: first into this browser, a moment later to the server, with the
 * revision that the text was made from. What the server does not have yet is never only in memory for long.
 */
export class ChapterSaver {
  readonly status = createStore<SaveStatus>(() => ({ kind: "saved" }));
  private doc: Node | null = null;
  private draftTimer: ReturnType<typeof setTimeout> | undefined;
  private saveTimer: ReturnType<typeof setTimeout> | undefined;
  private saving = false;

  constructor(
    private readonly bookId: string,
    private readonly chapterId: string,
    private revision: number,
    /** The text of that revision, from which what is written is made. */
    private base: Node,
    /** Told of each save, and whether links or places are others since. */
    private readonly onSaved: (changesLinks: boolean) => void,
  ) {}

  /** Where the text is written; null while it is not open. */
  editor: OpenText | null = null;

  /** The revision that the open text was made from. */
  get madeFrom(): number {
    return this.revision;
  }

  /** Begins to listen to the window: for its closing, and for the network's return. */
  open(): void {
    writtenTexts.add(this);
    addEventListener("online", this.saveNow);
    addEventListener("pagehide", this.keepNow);
  }

  /** Ends the saver; what is unsaved is kept and sent once more. */
  close(): void {
    removeEventListener("online", this.saveNow);
    removeEventListener("pagehide", this.keepNow);
    this.keepNow();
    this.saveNow();
    clearTimeout(this.saveTimer);
    // What is done next in another stage waits for the last words too.
    void this.settle()
      .catch(() => undefined)
      .finally(() => writtenTexts.delete(this));
  }

  isPending(): boolean {
    return this.is("unsaved") || this.is("saving");
  }

  /** Takes the document after a change. */
  changed(doc: Node): void {
    this.doc = doc;
    if (this.is("conflict")) return;
    if (!this.is("away") && !this.saving) this.set({ kind: "unsaved" });
    clearTimeout(this.draftTimer);
    this.draftTimer = setTimeout(this.keepNow, pauseBeforeDraft);
    this.schedule(pauseBeforeSave);
  }

  /** Sends what is unsaved at once. */
  readonly saveNow = (): void => {
    clearTimeout(this.saveTimer);
    if (this.doc && !this.saving && !this.is("conflict")) void this.save(this.doc);
  };

  /**
   * Waits until the server has everything.
   * @throws Error where it cannot have it now; its message says why
   */
  async settle(): Promise<void> {
    this.saveNow();
    if (this.is("saved")) return;
    if (this.is("conflict"))
      throw new Error("The chapter was changed in two places. Choose the text to go on with first.");
    const settled = await new Promise<SaveStatus>((resolve) => {
      const unsubscribe = this.status.subscribe((status) => {
        if (status.kind === "saving") return;
        // What was written meanwhile goes too.
        if (status.kind === "unsaved") return this.saveNow();
        unsubscribe();
        resolve(status);
      });
    });
    if (settled.kind === "refused") throw new Error(settled.message);
    if (settled.kind !== "saved")
      throw new Error("The text has to be saved first, and the server does not have it yet.");
  }

  /** Takes note that the server has changed the chapter by itself, and that the editor shows that text now. */
  adopt(revision: number, text: Node): void {
    this.revision = revision;
    this.base = text;
  }

  private readonly keepNow = (): void => {
    clearTimeout(this.draftTimer);
    // Once both texts are shown, the author's choice alone says what is kept.
    if (!this.doc || this.is("conflict")) return;
    keepDraft({
      chapterId: this.chapterId,
      revision: this.revision,
      document: writeChapter(this.doc),
      base: writeChapter(this.base),
    }).catch((error: unknown) => {
      this.set({
        kind: "refused",
        message: `This browser cannot keep the text: ${(error as Error).message}`,
      });
    });
  };

  private async save(doc: Node): Promise<void> {
    const path = { bookId: this.bookId, chapterId: this.chapterId };
    const document = writeChapter(doc);
    this.saving = true;
    if (!this.is("away")) this.set({ kind: "saving" });
    try {
      const saved = await answerOf(
        api.PUT("/api/books/{bookId}/chapters/{chapterId}", {
          params: { path },
          body: { revision: this.revision, document: document as unknown as Record<string, unknown> },
        }),
      );
      this.saving = false;
      await this.took(doc, saved);
    } catch (error) {
      this.saving = false;
      await this.failed(error as ApiError, doc, document);
    }
  }

  /** The server has a document now, under a new revision. */
  private async took(doc: Node, { revision, changesLinks }: ChapterSaved): Promise<void> {
    this.revision = revision;
    this.base = doc;
    this.onSaved(changesLinks);
    if (this.doc === doc) {
      this.doc = null;
      clearTimeout(this.draftTimer);
      await dropDraft(this.chapterId);
      this.set({ kind: "saved" });
    } else {
      this.keepNow();
      this.set({ kind: "unsaved" });
      this.schedule(pauseBeforeSave);
    }
  }

  private async failed(error: ApiError, sent: Node, mine: ChapterJson): Promise<void> {
    if (error.code === "old-revision") {
      const path = { bookId: this.bookId, chapterId: this.chapterId };
      try {
        const theirs = await answerOf(
          api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path } }),
        );
        // A save whose answer was lost on the way is there already: no other hand was in it.
        if (JSON.stringify(theirs.document) === JSON.stringify(mine))
          return await this.took(sent, { revision: theirs.revision, changesLinks: true });
        this.keepNow();
        if (this.merge(readChapter(theirs.document), theirs.revision)) return;
        this.set({ kind: "conflict", mine: this.doc ? writeChapter(this.doc) : mine, theirs });
        return;
      } catch (again) {
        error = again as ApiError;
      }
    }
    if (error.away) {
      this.set({ kind: "away" });
      this.schedule(retryAfter);
      return;
    }
    this.set({ kind: "refused", message: error.message });
  }

  /** Puts what was saved elsewhere and what is written here together; false where both changed the same paragraph. */
  private merge(theirs: Node, revision: number): boolean {
    const mine = this.editor?.text() ?? this.doc;
    const merged = mine && mergeTexts(this.base, mine, theirs);
    if (!merged) return false;
    this.editor?.show(merged);
    this.adopt(revision, theirs);
    this.doc = this.editor?.text() ?? merged;
    this.keepNow();
    this.set({ kind: "unsaved" });
    this.saveNow();
    return true;
  }

  private schedule(pause: number): void {
    clearTimeout(this.saveTimer);
    this.saveTimer = setTimeout(this.saveNow, pause);
  }

  private is(status: SaveStatus["kind"]): boolean {
    return this.status.getState().kind === status;
  }

  private set(status: SaveStatus): void {
    // Told with every key that is typed, so only news is passed on.
    if (status.kind === "unsaved" && this.is("unsaved")) return;
    this.status.setState(status, true);
  }
}
