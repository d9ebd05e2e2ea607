import type { Keep } from "@vennet/core/publish/formats/pdf/stray-notes";
import type { Typeset } from "@vennet/core/publish/formats/pdf/typeset-book";

type SetChapters = Pick<Typeset, "files" | "chapters" | "frame">;

/**
 * What was asked of the chapters of the book set last until their notes began by their marks. A chapter begins a page, so one that
 * is as it was needs the same again, and is not to be found out in as many rounds. (Where a page number in its words has
 * another width now, more may be asked than would be; its notes are by their marks all the same.)
 */
export class SettledNotes {
  private frame = "";
  private readonly chapters = new Map<string, { text: string; keeps: [string, Keep][] }>();

  /** What to ask to begin with, by the ids of notes. */
  of({ files, chapters, frame }: SetChapters): Map<string, Keep> {
    if (frame !== this.frame) return new Map();
    return new Map(
      chapters.flatMap(({ path }) => {
        const before = this.chapters.get(path);
        return before?.text === files.get(path) ? before!.keeps : [];
      }),
    );
  }

  remember({ files, chapters, frame }: SetChapters, keeps: ReadonlyMap<string, Keep>): void {
    this.frame = frame;
    this.chapters.clear();
    for (const { path, called } of chapters)
      this.chapters.set(path, {
        text: files.get(path)!,
        keeps: called.flatMap((id): [string, Keep][] => {
          const keep = keeps.get(id);
          return keep === undefined ? [] : [[id, keep]];
        }),
      });
  }
}
